"use client";
/** How long layouts are searched for, as a share of the usual time; the folder above knows what this server says. */
import { createContext } from "react";

export const LayoutTime = createContext(1);
