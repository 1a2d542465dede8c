import { withDescription } from "./pngText";

/** What makes a shape look as it does; the rest is the page's. */
const looks = ["fill", "fill-opacity", "stroke", "stroke-width", "stroke-linejoin", "paint-order", "opacity"];

/** Pixels across of a picture that is to be printed or passed on. */
const across = 1600;

/** A drawing of the page as a file of its own: its colours in it, its words as its title. */
export function drawingOf(shown: SVGSVGElement, ground: string) {
  const words = shown.getAttribute("aria-label") ?? shown.querySelector("title")?.textContent ?? "";
  const svg = shown.cloneNode(true) as SVGSVGElement;
  const from = [...shown.querySelectorAll<SVGElement>("*")];
  [...svg.querySelectorAll<SVGElement>("*")].forEach((shape, i) => {
    const style = getComputedStyle(from[i]!);
    for (const look of looks) {
      const value = style.getPropertyValue(look);
      if (value) shape.setAttribute(look, value);
    }
    shape.removeAttribute("class");
    shape.removeAttribute("style");
  });
  const [left, top, width, height] = (shown.getAttribute("viewBox") ?? "0 0 1 1").split(/[ ,]+/);
  for (const name of ["class", "style"]) svg.removeAttribute(name);
  svg.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  svg.setAttribute("role", "img");
  svg.setAttribute("aria-label", words);
  svg.setAttribute("width", String(across));
  svg.setAttribute("height", String(Math.round((across * Number(height)) / Number(width))));
  const made = (name: string) => document.createElementNS("http://www.w3.org/2000/svg", name);
  const sheet = made("rect");
  for (const [name, value] of Object.entries({ x: left, y: top, width, height, fill: ground }))
    sheet.setAttribute(name, value!);
  svg.querySelectorAll("title").forEach((title) => title.remove());
  const title = made("title");
  title.textContent = words;
  svg.prepend(title, sheet);
  return { svg: new XMLSerializer().serializeToString(svg), words };
}

/** The same as PNG, with its words in it. */
export async function pngOf({ svg, words }: { svg: string; words: string }) {
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await picture.decode();
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [picture.naturalWidth, picture.naturalHeight];
  canvas.getContext("2d")!.drawImage(picture, 0, 0);
  const blob = await new Promise<Blob>((resolve) => canvas.toBlob((made) => resolve(made!), "image/png"));
  return new Blob([withDescription(new Uint8Array(await blob.arrayBuffer()), words)], { type: "image/png" });
}
