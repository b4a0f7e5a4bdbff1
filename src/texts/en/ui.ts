import { catalogue } from "../catalogue";

export const uiTexts = catalogue({
  "ui.andRetired": ", retired",
  "ui.backToTheTray": "Back to the tray",
  "ui.calendar": "Calendar: {label}",
  "ui.loadingCalendar": "Loading calendar…",
  "ui.notice": "Notice",
  "ui.noticesHotkey": "Notices ('{'hotkey'}')",
  "ui.onSome": "on some",
  "ui.retired": "{name}, retired",
  "ui.urgency": "Urgency: {name}",
});
