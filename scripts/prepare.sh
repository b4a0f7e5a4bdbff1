#!/usr/bin/env bash
# Puts in place what a fresh machine lacks: Debian's PostgreSQL and Chromium, the npm packages, the built application.
# Usage: prepare.sh demo|test|bench|start. What is there already is left alone.
set -euo pipefail
cd "$(dirname "$0")/.."
purpose=${1:-demo}

say() { printf '%s\n' "$*" >&2; }

by_hand() { printf 'apt-get update && apt-get install -y --no-install-recommends %s' "$*"; }

sudo=()
may_install() {
  if [ "$(id -u)" -ne 0 ]; then
    if command -v sudo >/dev/null && sudo -n true 2>/dev/null; then sudo=(sudo -n)
    else say "Missing: $*. As root, run:  $(by_hand "$@")"; exit 1; fi
  fi
  if ! command -v apt-get >/dev/null; then say "Missing: $*. Install them, then run this again."; exit 1; fi
}

install_debian() {
  local missing=("$@")
  say "Installing ${missing[*]} …"
  # Debian's package would start a cluster of its own, which nothing here uses.
  if [[ " ${missing[*]} " == *" postgresql "* ]] && [ ! -e /etc/postgresql-common/createcluster.conf ]; then
    "${sudo[@]}" mkdir -p /etc/postgresql-common/createcluster.d
    echo 'create_main_cluster = false' | "${sudo[@]}" tee /etc/postgresql-common/createcluster.d/no-main.conf >/dev/null
  fi
  # Nor is a mail server wanted that the package would start: the tests run their own.
  local policy=/usr/sbin/policy-rc.d denied=no
  if [[ " ${missing[*]} " == *" dovecot-imapd "* ]] && [ ! -e "$policy" ]; then
    printf '#!/bin/sh\nexit 101\n' | "${sudo[@]}" tee "$policy" >/dev/null && "${sudo[@]}" chmod 755 "$policy" && denied=yes
  fi
  local log; log=$(mktemp)
  if ! { "${sudo[@]}" apt-get update && "${sudo[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${missing[@]}"; } >"$log" 2>&1; then
    [ $denied = no ] || "${sudo[@]}" rm -f "$policy"
    cat "$log" >&2; say "Installing ${missing[*]} failed. As root, run:  $(by_hand "${missing[@]}")"; exit 1
  fi
  [ $denied = no ] || "${sudo[@]}" rm -f "$policy"
  rm -f "$log"
}

node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)' ||
  { say "Node.js $(node --version) is too old: 20.19 or newer is needed."; exit 1; }

names=$(scripts/missing-packages.sh "$purpose")
# shellcheck disable=SC2206 # names of packages have no spaces
missing=($names)
# Beside the rest, which needs none of them: all of this is mostly waiting for what is fetched.
installing=
if [ ${#missing[@]} -gt 0 ]; then
  may_install "${missing[@]}"
  install_debian "${missing[@]}" &
  installing=$!
fi

mkdir -p .tray
lock=$(sha256sum package-lock.json | cut -d' ' -f1)
if [ ! -x node_modules/.bin/tsx ] || [ "$(cat node_modules/.common-tray-lock 2>/dev/null)" != "$lock" ]; then
  say "Installing the npm packages …"
  npm ci --no-audit --no-fund --loglevel=error >&2
  echo "$lock" >node_modules/.common-tray-lock
fi

sources=$(find src public package-lock.json vite.config.ts vite.main.config.ts react-router.config.ts -type f ! -name '*.test.ts' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
if [ ! -f build/server/index.js ] || [ ! -f build/main/start.js ] || [ "$(cat build/.sources 2>/dev/null)" != "$sources" ]; then
  say "Building the application …"
  built=$(mktemp)
  # The screens first: their build empties the folder.
  { node_modules/.bin/react-router build && node_modules/.bin/vite build --config vite.main.config.ts; } >"$built" 2>&1 ||
    { cat "$built" >&2; exit 1; }
  rm -f "$built"
  echo "$sources" >build/.sources
fi

[ -z "$installing" ] || wait "$installing"
