import { useState } from "react";
import { createRoot } from "react-dom/client";
import { CavloVisual } from "../embed/cavlo-react.js";

const YEARS = [2024, 2025, 2026];

function App() {
  const [year, setYear] = useState(2024);
  const [picked, setPicked] = useState<string[]>([]);
  return (
    <>
      <h1>Routes</h1>
      <select aria-label="Year" value={year} onChange={(e) => setYear(Number(e.target.value))}>
        {YEARS.map((y) => (
          <option key={y}>{y}</option>
        ))}
      </select>
      <CavloVisual
        src="../passengers.cavlo.json"
        filters={{ year: [year] }}
        theme="auto"
        onPick={(pick) => setPicked(pick.picked.map((p) => p.category))}
      />
      <p role="status">{picked.length > 0 ? `Picked: ${picked.join(", ")}` : "Nothing is picked."}</p>
    </>
  );
}

const root = document.getElementById("root");
if (root) createRoot(root).render(<App />);
