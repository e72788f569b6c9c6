// Asking again and again: the next question waits for the last answer, and nobody asks while the page is out of sight.
export function again(ask, every) {
  const { signal, abort } = stopper();
  let timer = null;

  async function turn() {
    if (!document.hidden) await ask(signal);
    if (!signal.aborted) timer = setTimeout(turn, every);
  }

  return {
    begin: () => turn(),
    later: () => (timer = setTimeout(turn, every)),
    dispose: () => {
      clearTimeout(timer);
      abort();
    },
  };
}

function stopper() {
  const controller = new AbortController();
  return { signal: controller.signal, abort: () => controller.abort() };
}
