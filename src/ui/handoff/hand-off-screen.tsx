"use client";
export function HandOffScreen() {
  return <p>soon</p>;
}
