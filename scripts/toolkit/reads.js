// Reads a QR code off a picture where the browser cannot: built by scripts/vendor.sh.
import read from "jsqr";

export default read.default ?? read;
