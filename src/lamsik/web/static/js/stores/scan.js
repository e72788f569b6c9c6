// Reads a label with the tablet's camera; where the page may not, it is said, and the label is typed.
const view = document.getElementById("scan-view");
const says = document.getElementById("scan-says");
const field = document.getElementById("c-label");
const button = document.getElementById("scan");
const EVERY_MS = 200;

let stream = null;

function stop() {
  for (const track of stream?.getTracks() ?? []) track.stop();
  stream = null;
  view.hidden = true;
}

async function reader() {
  if ("BarcodeDetector" in globalThis) {
    const detector = new BarcodeDetector({ formats: ["qr_code"] });
    return async () => (await detector.detect(view))[0]?.rawValue ?? "";
  }
  const { default: read } = await import("../../vendor/jsqr.js");
  const canvas = document.createElement("canvas");
  const pen = canvas.getContext("2d", { willReadFrequently: true });
  return () => {
    [canvas.width, canvas.height] = [view.videoWidth, view.videoHeight];
    if (!canvas.width) return "";
    pen.drawImage(view, 0, 0);
    return read(pen.getImageData(0, 0, canvas.width, canvas.height).data, canvas.width, canvas.height)?.data ?? "";
  };
}

async function look(read) {
  if (!stream) return;
  const text = await read();
  if (text) {
    stop();
    field.value = text;
    field.form.requestSubmit();
  } else {
    setTimeout(() => look(read), EVERY_MS);
  }
}

async function scan() {
  if (!navigator.mediaDevices) {
    says.textContent = "This page is not secure, so it may not use the camera: open it through the shop's own encrypted address, or type what stands under the label.";
    field.focus();
    return;
  }
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment" } });
  } catch {
    says.textContent = "There is no camera here, or it may not be used: type what stands under the label.";
    field.focus();
    return;
  }
  view.srcObject = stream;
  view.hidden = false;
  await view.play();
  says.textContent = "Hold the label in front of the camera.";
  look(await reader());
}

button.addEventListener("click", () => (stream ? stop() : scan()));
addEventListener("pagehide", stop);
