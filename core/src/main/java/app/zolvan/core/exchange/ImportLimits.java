package app.zolvan.core.exchange;

/**
 * What a file may ask for, checked before anything is allocated for it.
 *
 * @param fileBytes   size of the file, and of any one entry of an archive once unpacked
 * @param jsonBytes   size of its JSON part
 * @param triangles   triangles over all meshes, each counted once
 * @param nodes       nodes in the hierarchy
 * @param depth       nesting of the hierarchy
 * @param imageSide   pixels along an image's longer side
 * @param keptSide    pixels along it that are kept; larger images are halved until they fit
 * @param imagePixels pixels of one image
 * @param entries     entries of an archive
 * @param memoryBytes what a reader may hold at once
 */
public record ImportLimits(
        long fileBytes,
        int jsonBytes,
        int triangles,
        int nodes,
        int depth,
        int imageSide,
        int keptSide,
        long imagePixels,
        int entries,
        long memoryBytes) {
    public static final ImportLimits STANDARD = new ImportLimits(
            1L << 30, 64 << 20, 8_000_000, 100_000, 256, 16384, 4096, 1L << 28, 20_000, 1_500_000_000L);

    /** The same with another budget for memory. */
    public ImportLimits withMemory(long bytes) {
        return new ImportLimits(
                fileBytes, jsonBytes, triangles, nodes, depth, imageSide, keptSide, imagePixels, entries, bytes);
    }
}
