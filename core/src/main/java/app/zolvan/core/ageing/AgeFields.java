package app.zolvan.core.ageing;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.material.Ageing;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * How readily each place of a part ages: a texel of the atlas holds the resistance to weathering, growth, wear and dust
 * as red, green, blue and alpha, 255 for {@link Ageing#NEVER}.
 */
public record AgeFields(Atlas atlas, byte[] resistances) {
    private static final int MAGIC = 0x4547415A; // "ZAGE"

    /** The same for a mesh cut from that one: its second coordinates say where in the atlas its corners lie. */
    public AgeFields over(Mesh cut) {
        float[] corners = new float[2 * cut.indices().length];
        for (int i = 0; i < cut.indices().length; i++) {
            corners[2 * i] = cut.uv2()[2 * cut.indices()[i]];
            corners[2 * i + 1] = cut.uv2()[2 * cut.indices()[i] + 1];
        }
        return new AgeFields(new Atlas(corners, atlas.width(), atlas.height(), atlas.texel()), resistances);
    }

    /**
     * The resistances at a point, mixed of the four nearest texels.
     *
     * @param out four numbers, 0 … {@link Ageing#NEVER}
     */
    public void at(double u, double v, double[] out) {
        int w = atlas.width();
        int h = atlas.height();
        double x = u * w - 0.5;
        double y = v * h - 0.5;
        int x0 = (int) Math.floor(x);
        int y0 = (int) Math.floor(y);
        double tx = x - x0;
        double ty = y - y0;
        for (int k = 0; k < 4; k++) {
            double upper = (1 - tx) * texel(x0, y0, k) + tx * texel(x0 + 1, y0, k);
            double lower = (1 - tx) * texel(x0, y0 + 1, k) + tx * texel(x0 + 1, y0 + 1, k);
            out[k] = ((1 - ty) * upper + ty * lower) * Ageing.NEVER / 255;
        }
    }

    private int texel(int x, int y, int channel) {
        int cx = Math.max(0, Math.min(atlas.width() - 1, x));
        int cy = Math.max(0, Math.min(atlas.height() - 1, y));
        return resistances[4 * (cy * atlas.width() + cx) + channel] & 0xFF;
    }

    /**
     * As bytes for the stage, little-endian: "ZAGE", width, height, triangles as 32-bit numbers; six 16-bit coordinates a
     * triangle, 65535 for 1; the texels.
     */
    public byte[] encode() {
        float[] uv = atlas.uv();
        ByteBuffer out =
                ByteBuffer.allocate(16 + 2 * uv.length + resistances.length).order(ByteOrder.LITTLE_ENDIAN);
        out.putInt(MAGIC).putInt(atlas.width()).putInt(atlas.height()).putInt(uv.length / 6);
        for (float c : uv) {
            out.putShort((short) Math.round(65535 * c));
        }
        return out.put(resistances).array();
    }
}
