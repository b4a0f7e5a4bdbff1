#!/usr/bin/env bash
# Names Debian's packages that are missing for a purpose, one a line.
# Usage: missing-packages.sh demo|test|bench|start [root of the file system]
# Looked for is what is run, not what usually comes with it: a server without its tools, or mail without IMAP, is not enough.
set -euo pipefail
purpose=$1 root=${2:-}

has_all() {
  local file
  for file in "$@"; do [ -x "$file" ] || return 1; done
}
has_postgresql() {
  local newest
  newest=$(compgen -G "$root/usr/lib/postgresql/*/bin" | sort -V | tail -1) || return 1
  has_all "$newest"/{initdb,postgres,pg_ctl,pg_isready,psql}
}

case $purpose in
  start) ;;
  *) has_postgresql || echo postgresql ;;
esac
case $purpose in
  test | bench) has_all "$root/usr/bin/chromium-headless-shell" || echo chromium-headless-shell ;;
esac
case $purpose in
  test) has_all "$root"/usr/sbin/dovecot "$root"/usr/lib/dovecot/{imap,imap-login} || echo dovecot-imapd ;;
esac
