// What is picked in the visual is said by the page, and filters the board.
const [visual, board] = document.querySelectorAll("cavlo-visual, cavlo-board");
visual.addEventListener("pick", ({ detail }) => {
  const names = detail.picked.map((p) => p.category);
  document.getElementById("picked").textContent =
    names.length > 0 ? `Picked: ${names.join(", ")}` : "Nothing is picked.";
  board.filters = { Route: detail.picked.map((p) => p.value) };
});
