package app.zolvan.core.exchange.usd;

import java.nio.ByteBuffer;

/** The kinds of value in USD's binary files that are of use here, with the numbers they have there. */
enum CrateType {
    BOOL(1, Storage.I8, 1),
    UCHAR(2, Storage.U8, 1),
    INT(3, Storage.I32, 1),
    UINT(4, Storage.I32, 1),
    INT64(5, Storage.I64, 1),
    UINT64(6, Storage.I64, 1),
    HALF(7, Storage.F16, 1),
    FLOAT(8, Storage.F32, 1),
    DOUBLE(9, Storage.F64, 1),
    STRING(10, Storage.OTHER, 1),
    TOKEN(11, Storage.OTHER, 1),
    ASSET(12, Storage.OTHER, 1),
    MATRIX2(13, Storage.F64, 4),
    MATRIX3(14, Storage.F64, 9),
    MATRIX4(15, Storage.F64, 16),
    QUAT_D(16, Storage.F64, 4),
    QUAT_F(17, Storage.F32, 4),
    QUAT_H(18, Storage.F16, 4),
    DOUBLE2(19, Storage.F64, 2),
    FLOAT2(20, Storage.F32, 2),
    HALF2(21, Storage.F16, 2),
    INT2(22, Storage.I32, 2),
    DOUBLE3(23, Storage.F64, 3),
    FLOAT3(24, Storage.F32, 3),
    HALF3(25, Storage.F16, 3),
    INT3(26, Storage.I32, 3),
    DOUBLE4(27, Storage.F64, 4),
    FLOAT4(28, Storage.F32, 4),
    HALF4(29, Storage.F16, 4),
    INT4(30, Storage.I32, 4),
    DICTIONARY(31, Storage.OTHER, 1),
    TOKEN_LIST(32, Storage.OTHER, 1),
    STRING_LIST(33, Storage.OTHER, 1),
    PATH_LIST(34, Storage.OTHER, 1),
    REFERENCE_LIST(35, Storage.OTHER, 1),
    PATHS(40, Storage.OTHER, 1),
    TOKENS(41, Storage.OTHER, 1),
    SPECIFIER(42, Storage.OTHER, 1),
    PERMISSION(43, Storage.OTHER, 1),
    VARIABILITY(44, Storage.OTHER, 1),
    SELECTIONS(45, Storage.OTHER, 1),
    SAMPLES(46, Storage.OTHER, 1),
    PAYLOAD_ONE(47, Storage.OTHER, 1),
    DOUBLES(48, Storage.OTHER, 1),
    STRINGS(50, Storage.OTHER, 1),
    PAYLOAD_LIST(55, Storage.OTHER, 1),
    TIME_CODE(56, Storage.F64, 1);

    /** How a number lies in the file. */
    enum Storage {
        I8(1),
        U8(1),
        I32(4),
        I64(8),
        F16(2),
        F32(4),
        F64(8),
        OTHER(0);

        final int bytes;

        Storage(int bytes) {
            this.bytes = bytes;
        }

        /** Bytes that one takes in memory. */
        int kept() {
            return this == F64 ? 8 : 4;
        }

        double next(ByteBuffer in) {
            return switch (this) {
                case I8 -> in.get();
                case U8 -> in.get() & 0xFF;
                case I32 -> in.getInt();
                case I64 -> in.getLong();
                case F16 -> CrateReader.half(in.getShort());
                case F32 -> in.getFloat();
                case F64 -> in.getDouble();
                case OTHER -> Double.NaN;
            };
        }
    }

    private static final CrateType[] BY_CODE = new CrateType[64];

    final int code;
    final Storage storage;
    /** Numbers in one value. */
    final int width;

    static {
        for (CrateType t : values()) {
            BY_CODE[t.code] = t;
        }
    }

    CrateType(int code, Storage storage, int width) {
        this.code = code;
        this.storage = storage;
        this.width = width;
    }

    /** Null for kinds that are of no use here. */
    static CrateType of(int code) {
        return code < BY_CODE.length ? BY_CODE[code] : null;
    }

    boolean isTurn() {
        return this == QUAT_D || this == QUAT_F || this == QUAT_H;
    }

    /** An array of none of these. */
    Object none() {
        return switch (storage) {
            case F16, F32 -> new float[0];
            case F64 -> new double[0];
            case OTHER -> new String[0];
            default -> new int[0];
        };
    }

    /** For a value type's name as text has it, such as {@code color3f}; null for what Zolvan does not write. */
    static CrateType named(String type) {
        return switch (type) {
            case "bool" -> BOOL;
            case "int" -> INT;
            case "float" -> FLOAT;
            case "double" -> DOUBLE;
            case "string" -> STRING;
            case "token" -> TOKEN;
            case "asset" -> ASSET;
            case "matrix4d" -> MATRIX4;
            case "float2", "texCoord2f" -> FLOAT2;
            case "float3", "point3f", "normal3f", "vector3f", "color3f" -> FLOAT3;
            case "float4", "color4f" -> FLOAT4;
            default -> null;
        };
    }
}
