package app.zolvan.core.exchange;

/** Which axis of a file points up. Inside Zolvan it is always Y. */
public enum UpAxis {
    X,
    Y,
    Z
}
