"use client";
export function MeasuresScreen() {
  return <p>soon</p>;
}
