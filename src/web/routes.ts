import { index, layout, type RouteConfig, route } from "@react-router/dev/routes";

export default [
  route("sign-in", "routes/sign-in.tsx"),
  route("sign-out", "routes/sign-out.ts"),
  layout("routes/signed-in.tsx", [
    index("routes/home.ts"),
    route(":tray", "routes/tray.tsx", [
      index("routes/tray-home.ts"),
      route("live", "routes/live.ts"),
      route("decide", "routes/decide.ts"),
      route("undo", "routes/undo.ts"),
      route("answer/:conversation", "routes/answer.ts"),
      route("messages/:message/html", "routes/message-html.ts"),
      route("messages/:message/raw", "routes/message-raw.ts"),
      route("messages/:message/attachments/:index", "routes/attachment.ts"),
      route("messages/:message/attachments.zip", "routes/attachments-zip.ts"),
      route("messages/:message/pictures", "routes/pictures.ts"),
      route("messages/:message/split-off", "routes/split-off.ts"),
      route("join/:conversation", "routes/join.ts"),
      route("messages/:message/take-back", "routes/take-back.ts"),
      route("outgoing", "routes/outgoing.tsx"),
      route("import", "routes/import.tsx"),
      route("import/upload", "routes/import-upload.ts"),
      route("messages/:message/send-again", "routes/send-again.ts"),
      route("record-choices", "routes/record-choices.ts"),
      route("export/:what", "routes/export.ts"),
      route("search", "routes/search.tsx"),
      route("records", "routes/records.tsx"),
      route("records/:code", "routes/record.tsx"),
      route(":standing", "routes/standing.tsx", [route(":conversation", "routes/conversation.tsx")]),
    ]),
  ]),
] satisfies RouteConfig;
