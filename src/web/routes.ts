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
      route("messages/:message/send-again", "routes/send-again.ts"),
      route("record-choices", "routes/record-choices.ts"),
      route("search", "routes/search.tsx"),
      route("records", "routes/records.tsx"),
      route("records/:code", "routes/record.tsx"),
      route(":standing", "routes/standing.tsx", [route(":conversation", "routes/conversation.tsx")]),
    ]),
  ]),
] satisfies RouteConfig;
