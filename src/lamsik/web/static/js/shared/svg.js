// Build elements from the server's node values: {tag, attrs, children}. Text is only ever set as text.
const SVG = "http://www.w3.org/2000/svg";

export function build(node) {
  if (typeof node === "string") return document.createTextNode(node);
  const element = document.createElementNS(SVG, node.tag);
  for (const [name, value] of Object.entries(node.attrs)) element.setAttribute(name, value);
  for (const child of node.children) element.append(build(child));
  return element;
}
