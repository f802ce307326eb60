package app.zolvan.server.scheme;

import java.util.Collection;
import java.util.List;
import java.util.stream.Stream;

/** The things that changes touch, in words that compare: two changes of the same thing contradict each other. */
final class Touched {
    private Touched() {}

    static List<String> by(Collection<Change> changes) {
        return changes.stream().flatMap(Touched::by).distinct().toList();
    }

    private static Stream<String> by(Change change) {
        if (change instanceof Change.OfEntry c) {
            return Stream.of("look/" + c.scheme() + "/" + c.level() + "/" + c.target());
        }
        if (change instanceof Change.OfMaterial c) { // a new one is nobody else's yet
            return c.before() == null ? Stream.empty() : Stream.of("material/" + c.id());
        }
        if (change instanceof Change.OfPart c) {
            return Stream.of("part/" + c.part());
        }
        if (change instanceof Change.OfCandidate c) {
            return Stream.of("candidate/" + c.level() + "/" + c.target() + "/" + c.material());
        }
        if (change instanceof Change.OfScheme c) {
            return Stream.of("scheme/" + c.id());
        }
        if (change instanceof Change.OfPlaced c) {
            return Stream.of("model/" + c.model());
        }
        if (change instanceof Change.OfImage c) {
            return Stream.of("picture/" + c.sha256());
        }
        if (change instanceof Change.OfSet c) {
            return Stream.of("set/" + c.set());
        }
        if (change instanceof Change.OfView c) {
            return Stream.of("view/" + c.id());
        }
        if (change instanceof Change.OfLight c) {
            return Stream.of("light/" + c.id());
        }
        if (change instanceof Change.OfNote c) {
            return Stream.of("note/" + c.id());
        }
        if (change instanceof Change.OfFace c) {
            return Stream.of("face/" + c.face());
        }
        return Stream.of(change instanceof Change.OfModel ? "all" : "details");
    }
}
