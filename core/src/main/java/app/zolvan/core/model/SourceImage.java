package app.zolvan.core.model;

import java.io.Serializable;

/**
 * An image that arrived inside a file, still encoded.
 *
 * @param mediaType image/png or image/jpeg or image/webp
 * @param width     pixels
 * @param height    pixels
 */
public record SourceImage(String name, String mediaType, int width, int height, byte[] bytes) implements Serializable {}
