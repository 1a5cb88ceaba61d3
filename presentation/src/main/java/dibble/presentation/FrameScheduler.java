package dibble.presentation;

/** The frames of the window, for what follows them without a toolkit. */
public interface FrameScheduler {
    /** Runs something once in every frame, in the order of calls. */
    Subscription each(Runnable reader);

    /** Runs something once, when the next frames have been seen. */
    void once(Runnable action);

    /** Resumes the drawing of frames. */
    void wake();
}
