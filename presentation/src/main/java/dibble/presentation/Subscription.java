package dibble.presentation;

import java.util.List;

/** The right to end something that was begun, such as following a value. */
@FunctionalInterface
public interface Subscription {
    /** Ends nothing. */
    Subscription NONE = () -> {};

    /** Ends it. */
    void unsubscribe();

    /** Returns a subscription that ends this one and then another one. */
    default Subscription and(Subscription other) {
        return () -> {
            unsubscribe();
            other.unsubscribe();
        };
    }

    /** Returns a subscription that ends all of these, in order. */
    static Subscription combine(Subscription... all) {
        List<Subscription> copy = List.of(all);
        return () -> copy.forEach(Subscription::unsubscribe);
    }
}
