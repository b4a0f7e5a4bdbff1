import { useEffect, useState } from "react";
import { writingTexts } from "../../../texts/en/writing";
import { Button } from "../../ui/button";
import { Setting } from "../../ui/layout/setting";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

/** Has this browser open links to addresses (`mailto:`, RFC 6068) as a message of this tray; it asks its user first. */
export function AddressLinks() {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  const [canAsk, setCanAsk] = useState<boolean | null>(null);
  // Only from a place that the browser trusts.
  useEffect(() => setCanAsk("registerProtocolHandler" in navigator), []);
  return (
    <Setting
      name={say("writing.linksToAddresses")}
      about={say("writing.linksToAddressesAbout", { tray: tray.address })}
    >
      {canAsk === false ? (
        <p className="text-soft">{say("writing.thisBrowserOpensNoLinks")}</p>
      ) : (
        <Button
          disabled={canAsk === null}
          onClick={() => {
            navigator.registerProtocolHandler("mailto", `${window.location.origin}/${tray.slug}/write?mailto=%s`);
            notice(say("writing.theBrowserAsksNow"));
          }}
        >
          {say("writing.openThemHere")}
        </Button>
      )}
    </Setting>
  );
}
