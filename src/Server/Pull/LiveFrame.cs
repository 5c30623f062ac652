using RuddySpring.Core.Coaching;
using RuddySpring.Server.Instruments;

namespace RuddySpring.Server.Pull;

/// <summary>How far a pull has come.</summary>
public enum PullStage
{
    /// <summary>No pull.</summary>
    Idle,

    /// <summary>Ready; the clock starts when pressure or weight moves.</summary>
    Ready,

    /// <summary>Being pulled.</summary>
    Running,

    /// <summary>Stopped; the last drops are being weighed.</summary>
    Settling,
}

/// <summary>One of the pulls under way.</summary>
/// <param name="Id">Its id.</param>
/// <param name="MachineId">On which machine.</param>
/// <param name="MachineName">Its name.</param>
/// <param name="Stage">How far.</param>
/// <param name="Devices">Instruments that tell of it.</param>
public sealed record PullInHand(string Id, int MachineId, string MachineName, PullStage Stage, IReadOnlyList<string> Devices);

/// <summary>A pull that was kept as a shot.</summary>
public sealed record KeptPull(string PullId, int ShotId);

/// <summary>What is sent to the screens of one pull, up to 50 times a second: the state now and every sample since the last
/// frame.</summary>
/// <param name="Stage">How far.</param>
/// <param name="PullId">Which pull, or null.</param>
/// <param name="Sequence">Counts frames of this pull, so that a screen sees when it missed one.</param>
/// <param name="Reading">The state now.</param>
/// <param name="Pressure">New samples as pairs of s since the lever moved and bar.</param>
/// <param name="Weight">The same in g.</param>
/// <param name="Flow">The live flow at the end of each frame, g/s.</param>
/// <param name="Stroke">And of the water in the stroke under way, ml.</param>
/// <param name="Plan">What the plan wanted: s, bar and the phase that was due.</param>
/// <param name="Devices">The devices; null when nothing about them changed.</param>
/// <param name="Pulls">All pulls under way; null when nothing about them changed.</param>
/// <param name="Notices">What went wrong during this pull.</param>
/// <param name="Kept">The newest pull that was kept as a shot; null before the first.</param>
/// <param name="SentAt">Server time in ms since 1970, for measuring delay.</param>
public sealed record LiveFrame(
    PullStage Stage,
    string? PullId,
    long Sequence,
    LiveReading? Reading,
    IReadOnlyList<double[]> Pressure,
    IReadOnlyList<double[]> Weight,
    IReadOnlyList<double[]> Flow,
    IReadOnlyList<double[]> Stroke,
    IReadOnlyList<double[]> Plan,
    IReadOnlyList<DeviceView>? Devices,
    IReadOnlyList<PullInHand>? Pulls,
    IReadOnlyList<string> Notices,
    KeptPull? Kept,
    double SentAt
)
{
    /// <summary>What went wrong beside the pulls; null when nothing about it was asked.</summary>
    public IReadOnlyList<string>? Troubles { get; init; }
}
