// "8 g or 8 oz?": the reading that is picked is typed into its field, and the question asked again.
document.addEventListener("click", ({ target }) => {
  const button = target.closest("[data-reading]");
  if (!button) return;
  const field = document.getElementById(button.dataset.reading);
  field.value = button.value;
  field.form.requestSubmit();
});
