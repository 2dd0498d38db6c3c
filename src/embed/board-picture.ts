/** A picture of a visual on a board: its SVG, where it stands, and the ground and frame under it. */
interface Placed {
  svg: SVGElement;
  box: DOMRect;
  look: CSSStyleDeclaration;
}

const SVG = "http://www.w3.org/2000/svg";

function made(tag: string, attributes: Record<string, string | number>): SVGElement {
  const element = document.createElementNS(SVG, tag);
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, String(value));
  return element;
}

const round = (n: number) => Math.round(n * 10) / 10;

/** The ground of a picture with its frame, as it is painted around the SVG. */
function groundOf({ box, look }: Placed, x: number, y: number): SVGElement {
  const line = look.getPropertyValue("--line");
  return made("rect", {
    x: round(x) + 0.5,
    y: round(y) + 0.5,
    width: round(box.width) - 1,
    height: round(box.height) - 1,
    rx: Number.parseFloat(look.borderTopLeftRadius) || 0,
    fill: look.backgroundColor,
    stroke: line,
  });
}

/** The visuals of a board in their places, as they stand now, as one SVG; texts and controls are not in it. */
export function boardSvg(stage: HTMLElement, name: string): SVGElement {
  const all = [...stage.querySelectorAll<HTMLElement>(".board-picture")].flatMap((picture): Placed[] => {
    const svg = picture.querySelector<SVGElement>(".board-host > svg");
    return svg ? [{ svg, box: picture.getBoundingClientRect(), look: getComputedStyle(picture) }] : [];
  });
  const left = Math.min(...all.map((p) => p.box.left));
  const top = Math.min(...all.map((p) => p.box.top));
  const width = all.length > 0 ? Math.max(...all.map((p) => p.box.right)) - left : 1;
  const height = all.length > 0 ? Math.max(...all.map((p) => p.box.bottom)) - top : 1;
  const size = { width: round(width), height: round(height) };
  const whole = made("svg", {
    xmlns: SVG,
    ...size,
    viewBox: `0 0 ${size.width} ${size.height}`,
    role: "img",
  });
  const title = made("title", {});
  title.textContent = name;
  whole.append(title);
  for (const placed of all) {
    const [x, y] = [placed.box.left - left, placed.box.top - top];
    const svg = placed.svg.cloneNode(true) as SVGElement;
    svg.removeAttribute("style");
    for (const [key, value] of Object.entries({
      x: round(x),
      y: round(y),
      width: placed.box.width,
      height: placed.box.height,
    }))
      svg.setAttribute(key, String(value));
    whole.append(groundOf(placed, x, y), svg);
  }
  return whole;
}
