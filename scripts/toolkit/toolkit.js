// The behaviours of the toolkit that are used here, in one module: built by scripts/vendor.sh.
export { default as Dropdown } from "bootstrap/js/src/dropdown.js";
export { default as Offcanvas } from "bootstrap/js/src/offcanvas.js";
export { default as Popover } from "bootstrap/js/src/popover.js";
export { default as Toast } from "bootstrap/js/src/toast.js";
export { default as Tooltip } from "bootstrap/js/src/tooltip.js";
