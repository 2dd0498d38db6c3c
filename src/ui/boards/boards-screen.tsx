"use client";
export function BoardsScreen() {
  return <p>soon</p>;
}
