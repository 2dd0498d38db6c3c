"use client";
import { create } from "zustand";
import type { ProjectEvent } from "@/server/events";

interface Connection {
  /** Since when the server does not answer, in milliseconds; null while it does. */
  awaySince: number | null;
}

/** Whether the server answers, as the window's one stream of events tells. */
export const useConnection = create<Connection>(() => ({ awaySince: null }));

const hearers = new Set<(event: ProjectEvent) => void>();
const backHearers = new Set<() => void>();

/** Hears what happens to projects, until the function that is given back is called. */
export function onProjectEvent(hear: (event: ProjectEvent) => void): () => void {
  hearers.add(hear);
  return () => void hearers.delete(hear);
}

/** Hears when the server is back after it was away. */
export function onServerBack(hear: () => void): () => void {
  backHearers.add(hear);
  return () => void backHearers.delete(hear);
}

/** Looks after a moment whether the server is there. */
let lookAgain = () => {};

/**
 * Says that an answer did not come, before the stream has noticed. The stream is opened anew, so that this
 * ends when the server is there.
 */
export function serverIsAway(): void {
  if (useConnection.getState().awaySince !== null) return;
  useConnection.setState({ awaySince: Date.now() });
  lookAgain();
}

/** Says that an answer came. */
export function serverIsHere(): void {
  if (useConnection.getState().awaySince === null) return;
  useConnection.setState({ awaySince: null });
  for (const hear of backHearers) hear();
}

const FIRST_PAUSE = 1000;
const LONGEST_PAUSE = 10_000;

/**
 * Opens the window's stream and keeps it open: pauses between tries grow, and end at once when the network is
 * back. Gives what closes it.
 */
export function listenToServer(): () => void {
  let source: EventSource | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let pause = FIRST_PAUSE;
  let closed = false;
  const open = () => {
    if (timer) clearTimeout(timer);
    timer = null;
    source?.close();
    source = new EventSource("/api/events");
    source.onopen = () => {
      pause = FIRST_PAUSE;
      serverIsHere();
    };
    source.onmessage = ({ data }) => {
      const event = JSON.parse(data as string) as ProjectEvent;
      for (const hear of hearers) hear(event);
    };
    source.onerror = () => {
      source?.close();
      if (closed) return;
      openLater();
      serverIsAway();
    };
  };
  const openLater = () => {
    if (timer !== null || closed) return;
    timer = setTimeout(open, pause);
    pause = Math.min(LONGEST_PAUSE, pause * 2);
  };
  lookAgain = openLater;
  const again = () => {
    if (useConnection.getState().awaySince !== null) open();
  };
  open();
  window.addEventListener("online", again);
  return () => {
    closed = true;
    window.removeEventListener("online", again);
    if (timer) clearTimeout(timer);
    source?.close();
  };
}
