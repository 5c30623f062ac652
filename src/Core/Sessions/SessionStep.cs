using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;

namespace RuddySpring.Core.Sessions;

/// <summary>What a step of a session is.</summary>
public enum StepKind
{
    Fill,
    SwitchOn,
    Bleed,
    Boil,
    Preheat,
    Flush,
    Grind,
    Prepare,
    Cloth,
    Rest,
    Shot,
    Steam,
    Wipe,
    Froth,
    Depressurise,
    Cool,
    Refill,
    Purge,
    Rinse,
    SwitchOff,
}

/// <summary>A step of a session.</summary>
/// <param name="Key">What it goes by from one plan to the next, e.g. <c>shot-2</c>.</param>
/// <param name="Kind">What it is.</param>
/// <param name="StartSeconds">When it begins, s since the session's start.</param>
/// <param name="Seconds">How long it takes, s.</param>
/// <param name="Title">A few words.</param>
/// <param name="Detail">What to do and what ends it.</param>
/// <param name="Caution">What can hurt here; null where nothing does.</param>
/// <param name="HandsFree">Whether something else can be done meanwhile.</param>
/// <param name="Pull">Which pull it belongs to; null for the machine's own steps.</param>
/// <param name="GroupC">Group when it begins, degC; null for kettle machines without a heater.</param>
/// <param name="Grams">Water or steam it moves, g.</param>
/// <param name="DoseGrams">Coffee in it, g.</param>
public sealed record SessionStep(
    string Key,
    StepKind Kind,
    double StartSeconds,
    double Seconds,
    string Title,
    string Detail,
    string? Caution,
    bool HandsFree,
    int? Pull,
    double? GroupC,
    double Grams,
    double DoseGrams
)
{
    /// <summary>When it ends, s.</summary>
    public double EndSeconds => StartSeconds + Seconds;

    /// <summary>What the step does to the machine's heat.</summary>
    public IReadOnlyList<HeatEvent> HeatEvents(Machine machine, SessionWants wants, double kettleC) =>
        HeatEvents(machine, wants, kettleC, new(Key, Kind, StartSeconds, EndSeconds, false, Grams, DoseGrams));

    /// <summary>What a step that was done does to the machine's heat.</summary>
    public static IReadOnlyList<HeatEvent> HeatEvents(Machine machine, SessionWants wants, double kettleC, DoneStep done)
    {
        if (done.Skipped)
            return [];
        var at = done.StartSeconds;
        var seconds = Math.Max(1, done.EndSeconds - at);
        return done.Kind switch
        {
            StepKind.SwitchOn => [new(HeatEventKind.On, at)],
            StepKind.Bleed => [new(HeatEventKind.Bleed, at, Math.Min(seconds, 30))],
            StepKind.Flush or StepKind.Rinse when machine.HasBoiler && done.Grams > 0 =>
            [
                new(HeatEventKind.Flush, at, Math.Min(seconds, 20), done.Grams),
            ],
            StepKind.Shot =>
            [
                new(
                    HeatEventKind.Shot,
                    at,
                    seconds,
                    done.Grams,
                    done.DoseGrams,
                    machine.HasBoiler ? 0 : kettleC - KettlePreheat.PourLossK,
                    machine.HasBoiler ? 0 : Math.Min(wants.BloomSeconds, seconds - 1)
                ),
            ],
            StepKind.Cloth => [new(HeatEventKind.Cloth, at, seconds)],
            StepKind.Rest => [new(HeatEventKind.Off, at), new(HeatEventKind.On, done.EndSeconds)],
            StepKind.Steam => [new(HeatEventKind.Steam, at, seconds, done.Grams)],
            StepKind.Depressurise => [new(HeatEventKind.Off, at), new(HeatEventKind.Bleed, at, seconds)],
            StepKind.Refill =>
            [
                new(HeatEventKind.Refill, done.EndSeconds, 0, done.Grams),
                new(HeatEventKind.On, done.EndSeconds),
            ],
            StepKind.Preheat => KettlePreheat.Events(machine, wants.PreheatOn(machine) with { Seconds = seconds }, at, kettleC),
            StepKind.SwitchOff => [new(HeatEventKind.Off, at)],
            _ => [],
        };
    }
}

/// <summary>A step that was done, or skipped, and when it really was.</summary>
/// <param name="Key">Its key in the plan.</param>
/// <param name="Kind">What it was.</param>
/// <param name="StartSeconds">When it began, s since the session's start.</param>
/// <param name="EndSeconds">When it was over.</param>
/// <param name="Skipped">Left out.</param>
/// <param name="Grams">Water or steam it moved, g.</param>
/// <param name="DoseGrams">Coffee in it, g.</param>
public sealed record DoneStep(
    string Key,
    StepKind Kind,
    double StartSeconds,
    double EndSeconds,
    bool Skipped,
    double Grams = 0,
    double DoseGrams = 0
);

/// <summary>Water in boiler or kettle.</summary>
/// <param name="NowGrams">In it now, g.</param>
/// <param name="MinimumGrams">What must stay in it, g.</param>
/// <param name="ShotsLeft">Shots that what is in it now still gives.</param>
/// <param name="SteamGramsLeft">Steam that it still gives instead, g; 0 for a kettle.</param>
/// <param name="AtEndGrams">In it at the plan's end, g.</param>
/// <param name="Refills">How often it has to be filled again on the way.</param>
public sealed record WaterBudget(
    double NowGrams,
    double MinimumGrams,
    int ShotsLeft,
    double SteamGramsLeft,
    double AtEndGrams,
    int Refills
);

/// <summary>A session from switch-on to last rinse.</summary>
/// <param name="Steps">What is still to be done, in order of time.</param>
/// <param name="Course">Group and boiler against time.</param>
/// <param name="Shots">Heat of each shot, done and planned.</param>
/// <param name="StartSeconds">When the first step begins.</param>
/// <param name="LastCupSeconds">When the last drink is ready.</param>
/// <param name="EndSeconds">When everything is over.</param>
/// <param name="Problem">Why it cannot be met as asked; null when it can.</param>
/// <param name="Remedies">What would make it possible.</param>
/// <param name="Water">Water in boiler or kettle.</param>
/// <param name="Now">The machine's heat as it stands, from what was done and read so far.</param>
public sealed record SessionPlan(
    IReadOnlyList<SessionStep> Steps,
    IReadOnlyList<HeatPoint> Course,
    IReadOnlyList<ShotHeat> Shots,
    double StartSeconds,
    double LastCupSeconds,
    double EndSeconds,
    string? Problem,
    IReadOnlyList<string> Remedies,
    WaterBudget Water,
    HeatRun Now
)
{
    /// <summary>
    /// The step to do next: one that is under way when it is over before anything else wants the hands, or else the first that is
    /// due. Null when all is done.
    /// </summary>
    /// <param name="underWay">Keys of the steps that were begun and not ended.</param>
    public SessionStep? Next(IReadOnlyCollection<string> underWay)
    {
        var due = Steps.Where(s => !underWay.Contains(s.Key)).ToList();
        var hands = due.FirstOrDefault(s => !s.HandsFree);
        var going = Steps.FirstOrDefault(s => underWay.Contains(s.Key));
        return going is not null && (hands is null || going.EndSeconds <= hands.StartSeconds)
            ? going
            : due.FirstOrDefault() ?? going;
    }
}
