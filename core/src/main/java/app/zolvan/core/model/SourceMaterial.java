package app.zolvan.core.model;

import app.zolvan.core.material.Material;

/** A material that arrived with a file, kept exactly so that any surface can return to it. */
public record SourceMaterial(String name, Material material) {}
