/** The pictures of a drawing as text, by address: a file that stands alone carries them. */
async function picturesOf(svg: SVGSVGElement): Promise<Map<string, string>> {
  const read = async (address: string): Promise<[string, string][]> => {
    const blob = await fetch(address).then(
      (a) => (a.ok ? a.blob() : null),
      () => null,
    );
    if (!blob) return [];
    const reader = new FileReader();
    const done = new Promise((resolve) => reader.addEventListener("loadend", resolve));
    reader.readAsDataURL(blob);
    await done;
    return [[address, String(reader.result)]];
  };
  const addresses = new Set([...svg.querySelectorAll("image")].map((i) => i.getAttribute("href") ?? ""));
  return new Map((await Promise.all([...addresses].map(read))).flat());
}

/** A text with the colours for paper, which is light whatever the screen is. */
function inPaperColours(text: string) {
  const paper = document.createElement("div");
  paper.dataset.theme = "light";
  document.body.append(paper);
  const style = getComputedStyle(paper);
  const inked = text.replace(/var\((--[\w-]+)\)/g, (_, name) => style.getPropertyValue(name).trim());
  paper.remove();
  return inked;
}

/** The drawing as a file that stands alone, as it is seen, on white paper. */
async function standingAlone(svg: SVGSVGElement): Promise<string> {
  const pictures = await picturesOf(svg);
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const { width, height } = svg.viewBox.baseVal?.width ? svg.viewBox.baseVal : svg.getBoundingClientRect();
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("viewBox", `0 0 ${width} ${height}`);
  copy.removeAttribute("class");
  copy.removeAttribute("style");
  for (const defs of document.querySelectorAll("svg[data-patterns] defs")) copy.prepend(defs.cloneNode(true));
  for (const image of copy.querySelectorAll("image")) {
    const carried = pictures.get(image.getAttribute("href") ?? "");
    if (carried) image.setAttribute("href", carried);
    else image.remove();
  }
  const text = new XMLSerializer().serializeToString(copy);
  const rules = '<style>text{font:12px sans-serif;fill:var(--ink)}</style><rect width="100%" height="100%" fill="var(--panel)"/>';
  return inPaperColours(text.replace(/(<svg[^>]*>)/, `$1${rules}`));
}

function download(blob: Blob, file: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = file;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

const fileOf = (name: string, ending: string) => `${name.replace(/[^\p{L}\p{N}]+/gu, "-").slice(0, 80)}.${ending}`;

export const saveSvg = async (svg: SVGSVGElement, name: string) =>
  download(new Blob([await standingAlone(svg)], { type: "image/svg+xml" }), fileOf(name, "svg"));

export async function savePng(svg: SVGSVGElement, name: string) {
  const { width, height } = svg.getBoundingClientRect();
  const image = new Image();
  image.onload = () => {
    const canvas = document.createElement("canvas");
    // Twice as fine as the screen, for paper.
    [canvas.width, canvas.height] = [width * 2, height * 2];
    canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
    canvas.toBlob((blob) => blob && download(blob, fileOf(name, "png")));
  };
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(await standingAlone(svg))}`;
}

export async function printSvg(svg: SVGSVGElement, name: string, paper?: "A5") {
  const alone = await standingAlone(svg);
  const frame = document.createElement("iframe");
  frame.style.cssText = "position:fixed;width:0;height:0;border:0";
  document.body.append(frame);
  const page = frame.contentDocument as Document;
  page.title = name;
  if (paper) page.head.innerHTML = `<style>@page{size:${paper};margin:0}body{margin:0}</style>`;
  page.body.innerHTML = paper ? alone : alone.replace("<svg ", '<svg style="max-width:100%;height:auto" ');
  frame.contentWindow?.addEventListener("afterprint", () => frame.remove());
  frame.contentWindow?.print();
}
