package app.zolvan.core.model;

import app.zolvan.core.material.Material;
import java.io.Serializable;

/** A material that arrived with a file, kept exactly so that any surface can return to it. */
public record SourceMaterial(String name, Material material) implements Serializable {}
