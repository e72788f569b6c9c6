// A painted body turned in the hand, under a lamp that can be moved. What it looks like is computed by the shop; here it
// is only held into the light. The 3D library is fetched when somebody asks for it.
//   hand({ canvas, address, say }) → { show(upto), turn(about, up), lamp(round, height), dark(is_dark), dispose() }

const numbers = (text, Kind) => new Kind(Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0)).buffer);
export const canTurn = () => Boolean(document.createElement("canvas").getContext("webgl2"));

const NEAR = 0.55, FAR = 3;
const FILLS = 2.5; // lengths away, at a square picture, where a body fills most of it

export async function hand({ canvas, address, say = () => {} }) {
  const three = await import("../../vendor/three.js");
  const controller = new AbortController(), { signal } = controller;
  const renderer = new three.WebGLRenderer({ canvas, antialias: true, alpha: true });
  renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
  const scene = new three.Scene(), camera = new three.PerspectiveCamera(28, 2, 1, 4000), held = new three.Group();
  const lamp = new three.DirectionalLight(0xffffff, 2.4);
  const daylight = new three.AmbientLight(0xffffff, 0.55);
  scene.add(held, lamp, daylight);
  scene.environment = surroundings(three, renderer);
  let body = null, length = 100, away = 1, asked = 0;

  function draw() {
    const { clientWidth: wide, clientHeight: high } = canvas;
    renderer.setSize(wide, high, false);
    camera.aspect = wide / Math.max(high, 1);
    camera.position.set(0, 0, length * away * Math.max(0.9, FILLS / camera.aspect));
    camera.lookAt(0, 0, 0);
    camera.updateProjectionMatrix();
    renderer.render(scene, camera);
  }

  async function show(upto = "") {
    const number = ++asked, query = upto ? `?upto=${encodeURIComponent(upto)}` : "";
    const answer = await fetch(address + query, { headers: { Accept: "application/json" } }).catch(() => null);
    if (number !== asked) return;
    if (!answer?.ok) return say("The shop does not answer; is it still running?");
    const solid = await answer.json(), loader = new three.TextureLoader();
    const wanted = [solid.colour, solid.shine, solid.flakes].map((one) => one && loader.loadAsync(one));
    const [colour, shine, flakes] = await Promise.all(wanted);
    if (number !== asked) return;
    colour.colorSpace = three.SRGBColorSpace;
    for (const picture of [colour, shine]) Object.assign(picture, { flipY: false, anisotropy: 8 });
    const shape = new three.BufferGeometry();
    shape.setAttribute("position", new three.BufferAttribute(numbers(solid.points, Float32Array), 3));
    shape.setAttribute("normal", new three.BufferAttribute(numbers(solid.normals, Float32Array), 3));
    shape.setAttribute("uv", new three.BufferAttribute(numbers(solid.at, Float32Array), 2));
    shape.setIndex(new three.BufferAttribute(numbers(solid.faces, Uint16Array), 1));
    // Each flake mirrors its own way: none is blurred into its neighbours.
    if (flakes) Object.assign(flakes, { flipY: false, generateMipmaps: false, minFilter: three.NearestFilter, magFilter: three.NearestFilter });
    const glow = solid.glows ? glowing(three, colour, shine) : null, read = shared(three, shine);
    const stuff = new three.MeshPhysicalMaterial({
      map: colour, metalnessMap: read, metalness: 1, roughness: solid.glossy ? 0.36 : 0.75,
      iridescenceMap: read, iridescence: solid.turns ? 1 : 0, clearcoat: solid.glossy ? 1 : 0, clearcoatRoughness: 0.06, normalMap: flakes ?? null,
      emissiveMap: glow, emissive: glow ? 0xffffff : 0x000000, emissiveIntensity: 0,
    });
    drop();
    body = new three.Mesh(shape, stuff);
    body.rotation.x = -Math.PI / 2; // the shop's z is up; here y is
    held.add(body);
    length = solid.length_mm;
    say("");
    draw();
    return { glows: solid.glows };
  }

  // Without lamp and daylight only what glows is seen.
  function dark(isDark) {
    lamp.visible = daylight.visible = !isDark;
    scene.environmentIntensity = isDark ? 0.02 : 1;
    if (body) body.material.emissiveIntensity = isDark ? 1.5 : 0;
    canvas.classList.toggle("bg-night", isDark);
    draw();
  }

  function drop() {
    if (!body) return;
    held.remove(body);
    for (const part of [body.geometry, body.material.map, body.material.metalnessMap, body.material.emissiveMap, body.material.normalMap, body.material]) part?.dispose();
    body = null;
  }

  // Turned about the screen's own axes [°], as a hand does.
  function turn(about, up) {
    const axes = [[new three.Vector3(0, 1, 0), about], [new three.Vector3(1, 0, 0), up]];
    for (const [axis, degrees] of axes) held.quaternion.premultiply(new three.Quaternion().setFromAxisAngle(axis, (degrees * Math.PI) / 180));
    draw();
  }

  function light(round, height) {
    const [a, h] = [round, height].map((degrees) => (degrees * Math.PI) / 180);
    lamp.position.set(Math.sin(a) * Math.cos(h), Math.sin(h), Math.cos(a) * Math.cos(h)).multiplyScalar(500);
    draw();
  }

  let from = null;
  canvas.addEventListener("pointerdown", (event) => {
    from = [event.clientX, event.clientY];
    canvas.setPointerCapture(event.pointerId);
  }, { signal });
  canvas.addEventListener("pointermove", (event) => {
    if (!from) return;
    turn((event.clientX - from[0]) * 0.5, (event.clientY - from[1]) * 0.5);
    from = [event.clientX, event.clientY];
  }, { signal });
  for (const end of ["pointerup", "pointercancel"]) canvas.addEventListener(end, () => (from = null), { signal });
  canvas.addEventListener("wheel", (event) => {
    event.preventDefault();
    nearer(event.deltaY / 1000);
  }, { signal, passive: false });
  canvas.addEventListener("keydown", (event) => {
    const step = event.shiftKey ? 30 : 6;
    const way = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key];
    if (way) turn(...way);
    else if (event.key === "+" || event.key === "-") nearer(event.key === "+" ? -0.1 : 0.1);
    else if (event.key === "Home") rest();
    else return;
    event.preventDefault();
  }, { signal });
  addEventListener("resize", draw, { signal });

  function nearer(by) {
    away = Math.min(Math.max(away * (1 + by), NEAR), FAR);
    draw();
  }

  function rest() {
    held.quaternion.identity();
    away = 1;
    turn(-18, 12);
  }

  rest();
  return { show, turn, lamp: light, dark, dispose: () => (controller.abort(), drop(), renderer.dispose()) };
}

// The shop sends what mirrors in red, what turns its hue in green; the library reads metal from blue, hue from red.
function shared(three, picture) {
  const { width, height } = picture.image, canvas = Object.assign(document.createElement("canvas"), { width, height });
  const pen = canvas.getContext("2d");
  pen.drawImage(picture.image, 0, 0);
  const points = pen.getImageData(0, 0, width, height);
  for (let n = 0; n < points.data.length; n += 4) [points.data[n + 2], points.data[n]] = [points.data[n], points.data[n + 1] * 2];
  const read = new three.DataTexture(new Uint8Array(points.data.buffer), width, height, three.RGBAFormat);
  Object.assign(read, { minFilter: three.LinearFilter, magFilter: three.LinearFilter, needsUpdate: true });
  picture.dispose();
  return read;
}

// What glows in the dark, in its own colour: the shop sends how much in blue.
function glowing(three, colour, shine) {
  const { width, height } = shine.image, pen = Object.assign(document.createElement("canvas"), { width, height }).getContext("2d");
  const read = (picture) => (pen.drawImage(picture.image, 0, 0, width, height), pen.getImageData(0, 0, width, height));
  const seen = read(colour), much = read(shine).data;
  for (let n = 0; n < much.length; n += 4) for (let c = 0; c < 3; c += 1) seen.data[n + c] *= much[n + 2] / 255;
  const picture = new three.DataTexture(new Uint8Array(seen.data.buffer), width, height, three.RGBAFormat);
  return Object.assign(picture, { colorSpace: three.SRGBColorSpace, minFilter: three.LinearFilter, magFilter: three.LinearFilter, needsUpdate: true });
}

// What a mirror sees: a bright window above, the bench below.
function surroundings(three, renderer) {
  const wide = 32, high = 16, points = new Uint8Array(wide * high * 4);
  for (let y = 0; y < high; y += 1) for (let x = 0; x < wide; x += 1) {
    const up = y / (high - 1), window = up > 0.58 && up < 0.9 && x % 16 > 3 && x % 16 < 12 ? 255 : 0;
    const grey = Math.max(window, 95 + 120 * up * up);
    points.set([grey, grey, Math.min(grey * 1.04, 255), 255], (y * wide + x) * 4);
  }
  const room = new three.DataTexture(points, wide, high, three.RGBAFormat);
  Object.assign(room, { mapping: three.EquirectangularReflectionMapping, colorSpace: three.SRGBColorSpace, needsUpdate: true, magFilter: three.LinearFilter });
  const maker = new three.PMREMGenerator(renderer), made = maker.fromEquirectangular(room).texture;
  maker.dispose();
  room.dispose();
  return made;
}
