package app.zolvan.core.exchange;

/**
 * What a file may ask for, checked before anything is allocated for it.
 *
 * @param fileBytes   size of the file
 * @param jsonBytes   size of its JSON part
 * @param triangles   triangles over all meshes, each counted once
 * @param nodes       nodes in the hierarchy
 * @param depth       nesting of the hierarchy
 * @param imageSide   pixels along an image's longer side
 * @param imagePixels pixels of one image
 */
public record ImportLimits(
        long fileBytes, int jsonBytes, int triangles, int nodes, int depth, int imageSide, long imagePixels) {
    public static final ImportLimits STANDARD =
            new ImportLimits(200L << 20, 64 << 20, 5_000_000, 100_000, 256, 8192, 67_108_864);
}
