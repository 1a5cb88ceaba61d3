package dibble.session;

import dibble.gear.UnknownFields;
import dibble.routing.ControlMap;
import dibble.routing.Scene;
import dibble.routing.SceneSound;
import dibble.routing.Zone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.function.UnaryOperator;

/**
 * A difference of two scenes.
 *
 * @param first the value in the first scene, or null
 * @param second the value in the second scene, or null
 * @param <T> a zone, a control map or the sound of a part
 */
public record SceneDifference<T>(T first, T second) {
    /** The zones in which two scenes differ: those of one source that lead to one target are set side by side. */
    public static List<SceneDifference<Zone>> zones(Scene first, Scene second) {
        return compare(
                first.zones(),
                second.zones(),
                zone -> zone.with().id("x").name("").extras(UnknownFields.NONE).build(),
                (one, other) -> one.source().equals(other.source())
                        && one.to().equals(other.to())
                        && one.keyswitch() == other.keyswitch());
    }

    /** The control maps in which two scenes differ: those that answer to one control are set side by side. */
    public static List<SceneDifference<ControlMap>> controls(Scene first, Scene second) {
        return compare(
                first.controls(),
                second.controls(),
                map -> map.withId("x").withName(""),
                (one, other) -> one.source().equals(other.source())
                        && one.when().kind() == other.when().kind()
                        && one.when().number() == other.when().number());
    }

    /** The sounds that two scenes set differently, part by part. */
    public static List<SceneDifference<SceneSound>> sounds(Scene first, Scene second) {
        return compare(
                first.sounds(),
                second.sounds(),
                sound -> new SceneSound(sound.part(), sound.sound(), UnknownFields.NONE),
                (one, other) -> one.part().equals(other.part()));
    }

    private static <T> List<SceneDifference<T>> compare(
            List<T> first, List<T> second, UnaryOperator<T> bare, BiPredicate<T, T> counterparts) {
        List<T> left = new ArrayList<>(second);
        List<T> unmatched = new ArrayList<>();
        for (T one : first) {
            Optional<T> same = left.stream()
                    .filter(other -> bare.apply(other).equals(bare.apply(one)))
                    .findFirst();
            same.ifPresentOrElse(left::remove, () -> unmatched.add(one));
        }
        List<SceneDifference<T>> differences = new ArrayList<>();
        for (T one : unmatched) {
            Optional<T> counterpart =
                    left.stream().filter(other -> counterparts.test(one, other)).findFirst();
            counterpart.ifPresent(left::remove);
            differences.add(new SceneDifference<>(one, counterpart.orElse(null)));
        }
        left.forEach(other -> differences.add(new SceneDifference<>(null, other)));
        return differences;
    }
}
