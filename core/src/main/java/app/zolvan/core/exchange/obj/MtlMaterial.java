package app.zolvan.core.exchange.obj;

import app.zolvan.core.material.Surface;

/** One material of an MTL library. */
record MtlMaterial(String name, Surface surface) {}
