// Build elements from the server's node values: {tag, attrs, children}. Text is only ever set as text.
const SVG = "http://www.w3.org/2000/svg";
const drawn = new WeakMap(); // the node value an element shows

export function build(node) {
  if (typeof node === "string") return document.createTextNode(node);
  const element = document.createElementNS(SVG, node.tag);
  for (const [name, value] of Object.entries(node.attrs)) element.setAttribute(name, value);
  for (const child of node.children) element.append(build(child));
  drawn.set(element, node);
  return element;
}

// Make the children of an element show these nodes, in place: what shows the same value is not touched.
export function patch(parent, nodes) {
  nodes.forEach((node, index) => {
    const there = parent.childNodes[index];
    if (!there) return parent.append(build(node));
    if (typeof node !== "string" && drawn.get(there) === node) return;
    if (typeof node === "string" && there.nodeType === Node.TEXT_NODE) there.data === node || (there.data = node);
    else if (node.tag && node.tag === there.localName) alter(there, node);
    else there.replaceWith(build(node));
  });
  while (parent.childNodes.length > nodes.length) parent.lastChild.remove();
}

function alter(element, node) {
  for (const name of element.getAttributeNames()) if (!(name in node.attrs)) element.removeAttribute(name);
  for (const [name, value] of Object.entries(node.attrs)) if (element.getAttribute(name) !== String(value)) element.setAttribute(name, value);
  patch(element, node.children);
  drawn.set(element, node);
}
