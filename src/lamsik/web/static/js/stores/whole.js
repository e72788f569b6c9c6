// The whole shop is written beside its page: how far it is, then the file. Without this module the page is looked at again by hand.
import { work } from "../shared/job.js";

const form = document.getElementById("whole");
const bar = document.getElementById("whole-bar");
const says = document.getElementById("whole-says");
const take = document.getElementById("whole-take");

function failed(text) {
  bar.hidden = true;
  says.textContent = text;
}

const job = work({
  url: form.dataset.job,
  said(share, text) {
    bar.value = share;
    says.textContent = `Writing ${text}`;
  },
  done({ url, size }) {
    bar.hidden = true;
    says.textContent = `It is ready: ${size}.`;
    take.href = url;
    take.hidden = false;
    take.focus();
  },
  failed,
});

form.addEventListener("submit", (event) => {
  event.preventDefault();
  take.hidden = true;
  bar.hidden = false;
  bar.value = 0;
  job.begin({});
});
