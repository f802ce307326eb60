package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.FileSet;

/** @param files the layer's own file, with those beside it: what it names is looked up from there */
record UsdLayer(UsdPrim root, FileSet files) {}
