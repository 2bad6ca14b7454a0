/** What decides how a drawn thing looks; the page's own sheets do not go with a saved picture. */
const LOOKS = [
  "fill",
  "fill-opacity",
  "stroke",
  "stroke-width",
  "stroke-dasharray",
  "stroke-opacity",
  "opacity",
  "font-size",
  "font-weight",
  "text-anchor",
  "paint-order",
  "stroke-linejoin",
  "display",
  "visibility",
] as const;
const FONT = "sans-serif";
/** Pixels of a saved picture for one on the screen: sharp on paper. */
const SHARP = 2;

/** The drawing as a file of its own, with the colours and sizes that it is seen with. */
export function svgOf(drawn: SVGSVGElement): string {
  const copy = drawn.cloneNode(true) as SVGSVGElement;
  const own = [drawn, ...drawn.querySelectorAll<SVGElement>("*")];
  const copies = [copy, ...copy.querySelectorAll<SVGElement>("*")];
  own.forEach((element, k) => {
    const seen = getComputedStyle(element);
    const to = copies[k];
    if (!to) return;
    to.removeAttribute("class");
    to.setAttribute("style", LOOKS.map((name) => `${name}:${seen.getPropertyValue(name)}`).join(";"));
  });
  const { width, height } = drawn.getBoundingClientRect();
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", String(width));
  copy.setAttribute("height", String(height));
  copy.setAttribute("viewBox", `0 0 ${width} ${height}`);
  copy.style.fontFamily = FONT;
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  ground.setAttribute("width", "100%");
  ground.setAttribute("height", "100%");
  ground.setAttribute("fill", getComputedStyle(drawn.parentElement ?? drawn).backgroundColor);
  copy.prepend(ground);
  return new XMLSerializer().serializeToString(copy);
}

/** The drawing as a picture; throws where the browser cannot make one. */
export async function pngOf(drawn: SVGSVGElement): Promise<Blob> {
  const { width, height } = drawn.getBoundingClientRect();
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgOf(drawn))}`;
  await picture.decode();
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(width * SHARP);
  canvas.height = Math.round(height * SHARP);
  const pen = canvas.getContext("2d");
  if (!pen) throw new Error("this browser draws no pictures: save the sheet as SVG");
  pen.scale(SHARP, SHARP);
  pen.drawImage(picture, 0, 0, width, height);
  return new Promise((done, failed) =>
    canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error("the picture came out empty"))), "image/png"),
  );
}
