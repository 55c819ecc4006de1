// Before the first paint, so that a dark room is not lit up for a moment.
const chosen = localStorage.getItem("theme");
document.documentElement.dataset.theme = chosen ?? (matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light");
