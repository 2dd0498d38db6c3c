// Rows of the page's own, as objects: the measure of the snapshot is computed over them in the page.
const visual = document.querySelector("cavlo-visual");
const told = document.getElementById("told");
const names = ["North Quay", "Old Pier", "Marl Point"];
const routes = names.map((route) => ({ route }));
const sailings = [];

visual.addEventListener("error", ({ detail }) => {
  told.textContent = detail.message;
});
visual.addEventListener("change", () => {
  told.textContent = `${sailings.length} sailings`;
});

function board() {
  sailings.push({ route: names[sailings.length % names.length], passengers: 100, date: new Date() });
  visual.rows = { sailings: [...sailings], routes };
}
board();
setInterval(board, 1000);
