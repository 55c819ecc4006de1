// Before the first paint, so that a dark room is not lit up for a moment.
const chosen = localStorage.getItem("theme");
document.documentElement.dataset.theme = chosen ?? (matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light");

// What the page will ask for first is fetched while its scripts are.
const rig = /^\/rigs\/([^/]+)$/.exec(location.pathname);
for (const href of ["/api/catalogue", "/api/units", ...(rig ? [`/api/rigs/${rig[1]}`] : [])]) {
  const link = document.createElement("link");
  Object.assign(link, { rel: "preload", as: "fetch", crossOrigin: "anonymous", href });
  document.head.append(link);
}
