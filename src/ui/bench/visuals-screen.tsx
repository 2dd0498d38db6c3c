"use client";
export function VisualsScreen() {
  return <p>soon</p>;
}
