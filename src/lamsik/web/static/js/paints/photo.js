// A look off a photo: its marks are set here, on a canvas; the shop reads it. The photo is not kept.
import { post, tell } from "../shared/post.js";

const at = (id) => document.getElementById(id);
const form = at("photo-form"), canvas = at("photo"), pen = canvas.getContext("2d"), says = at("photo-says");
const kinds = [...form.querySelectorAll("[name=mark]")];
const marks = { white: null, grey: null, black: null, bait: [] };
let picture = null, scale = 1;

form.elements.photo.addEventListener("change", async () => {
  const [file] = form.elements.photo.files;
  if (!file) return;
  try {
    picture = await createImageBitmap(file);
  } catch {
    return tell(says, "This is no picture that can be read here: JPEG, PNG or WebP.");
  }
  scale = Math.min(1, 900 / picture.width);
  Object.assign(canvas, { width: picture.width * scale, height: picture.height * scale, hidden: false });
  Object.assign(marks, { white: null, grey: null, black: null, bait: [] });
  tell(says, "Mark the white, the grey and the black of the card, then points on what is to be read.");
  choose("white");
  draw();
});

const chosen = () => kinds.find((one) => one.checked).value;
const choose = (kind) => (kinds.find((one) => one.value === kind).checked = true);

function draw() {
  if (!picture) return;
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const all = [["W", marks.white], ["G", marks.grey], ["B", marks.black], ...marks.bait.map((spot, n) => [String(n + 1), spot])];
  pen.font = "600 13px sans-serif";
  for (const [name, spot] of all) {
    if (!spot) continue;
    for (const [ink, wide] of [["#fff", 4], ["#c63d12", 2]]) {
      Object.assign(pen, { strokeStyle: ink, lineWidth: wide });
      pen.beginPath();
      pen.arc(spot[0] * scale, spot[1] * scale, 9, 0, 2 * Math.PI);
      pen.stroke();
    }
    Object.assign(pen, { strokeStyle: "#fff", lineWidth: 4, fillStyle: "#16283a" });
    pen.strokeText(name, spot[0] * scale + 12, spot[1] * scale - 6);
    pen.fillText(name, spot[0] * scale + 12, spot[1] * scale - 6);
  }
  at("photo-read").disabled = !(marks.white && marks.grey && marks.black && marks.bait.length);
}

// A mark of the card is set once and the next is asked for; points on the bait are as many as one likes.
function set(spot) {
  const kind = chosen();
  if (kind === "bait") marks.bait = [...marks.bait, spot].slice(-12);
  else marks[kind] = spot;
  const next = ["white", "grey", "black", "bait"].find((name) => name === "bait" || !marks[name]);
  if (kind !== "bait") choose(next);
  draw();
}

canvas.addEventListener("click", ({ offsetX, offsetY }) => {
  const shown = canvas.width / canvas.clientWidth;
  set([(offsetX * shown) / scale, (offsetY * shown) / scale]);
});

// By keys: Enter sets the chosen mark in the middle, arrows move the last one of its kind.
canvas.addEventListener("keydown", (event) => {
  const step = event.shiftKey ? 40 : 6, kind = chosen();
  const way = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
  const spot = kind === "bait" ? marks.bait.at(-1) : marks[kind];
  if (event.key === "Enter") set([picture.width / 2, picture.height / 2]);
  else if (event.key === "Backspace" && kind === "bait") marks.bait.pop();
  else if (way && spot) [spot[0], spot[1]] = [spot[0] + way[0], spot[1] + way[1]];
  else return;
  event.preventDefault();
  draw();
});

form.addEventListener("submit", async (event) => {
  event.preventDefault();
  tell(says, "Reading …");
  const sent = new FormData(form);
  const share = ([x, y]) => [x / picture.width, y / picture.height];
  sent.set("marks", JSON.stringify({ card: [marks.white, marks.grey, marks.black].map(share), points: marks.bait.map(share) }));
  const { ok, body: told, message } = await post(location.pathname, sent);
  tell(says, ok ? told.says : message);
  at("photo-taken").hidden = !ok;
  if (!ok) return;
  at("photo-look").setAttribute("fill", told.colour);
  for (const name of ["lightness", "red", "yellow"]) at(`take-${name}`).value = told.look[name];
});
