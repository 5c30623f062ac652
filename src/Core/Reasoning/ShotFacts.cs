using RuddySpring.Core.Beans;
using RuddySpring.Core.Care;
using RuddySpring.Core.Dialing;
using RuddySpring.Core.Fitting;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;

namespace RuddySpring.Core.Reasoning;

/// <summary>What people ticked before a shot; null where nobody ticks it.</summary>
/// <param name="Preheated">The machine was preheated.</param>
/// <param name="Bled">The air was let out of the boiler.</param>
/// <param name="Purged">The grinder was purged after another coffee.</param>
/// <param name="ScreenIn">The screen was on the puck.</param>
public sealed record TickedBefore(bool? Preheated = null, bool? Bled = null, bool? Purged = null, bool? ScreenIn = null)
{
    /// <summary>One of them.</summary>
    public bool? Of(DoneBefore what) =>
        what switch
        {
            DoneBefore.Preheated => Preheated,
            DoneBefore.Bled => Bled,
            DoneBefore.Purged => Purged,
            _ => ScreenIn,
        };
}

/// <summary>Everything that is known of a shot and of what was to be expected of it. What nobody knows is null, and changes
/// nothing.</summary>
public sealed record ShotFacts
{
    /// <summary>The shot as its sheet has it, of a coffee that behaves as earlier pulls of it did, at 1 bar s/ml of
    /// resistivity.</summary>
    public required ShotConditions Sheet { get; init; }

    /// <summary>Its trace; null for a shot without one.</summary>
    public ShotReading? Reading { get; init; }

    /// <summary>What was to be expected of the logarithm of its grind's resistivity (<see cref="GrindResistivity"/>), at its
    /// setting, its age and its dose, from the shots before it; null where none told.</summary>
    public Prediction? Expected { get; init; }

    /// <summary>The grinder's scale and its setting; null where nobody noted it.</summary>
    public GrindNote? Grind { get; init; }

    /// <summary>Whatever tells one coffee from another; empty where nobody noted it.</summary>
    public string Coffee { get; init; } = "";

    /// <summary>Roast level in the owner's words.</summary>
    public string Roast { get; init; } = "";

    /// <summary>Days from roast.</summary>
    public double? AgeDays { get; init; }

    /// <summary>When this household drinks its beans.</summary>
    public RestWindow Rest { get; init; } = RestWindow.Of(RestSchool.SevenToTen);

    /// <summary>Water at the puck, measured or worked out from what was ticked, degC.</summary>
    public double? WaterC { get; init; }

    /// <summary>Outside of the group when the lever moved, degC.</summary>
    public double? GroupC { get; init; }

    /// <summary>Where it should be.</summary>
    public GroupBand? Band { get; init; }

    /// <summary>Shots pulled in a row just before this one.</summary>
    public int? InARow { get; init; }

    /// <summary>What the boiler's gauge showed, bar.</summary>
    public double? BoilerBar { get; init; }

    /// <summary>What was ticked.</summary>
    public TickedBefore Ticked { get; init; } = new();

    /// <summary>What somebody said afterwards had been forgotten.</summary>
    public IReadOnlySet<DoneBefore> Admitted { get; init; } = new HashSet<DoneBefore>();

    /// <summary>Whether a screen or a paper disc belongs on this puck.</summary>
    public bool ScreenBelongs { get; init; }

    /// <summary>Whether another coffee was ground just before.</summary>
    public bool OtherCoffeeBefore { get; init; }

    /// <summary>How it tasted.</summary>
    public TasteMarks Taste { get; init; } = TasteMarks.None;

    /// <summary>What was seen of it; null where nobody looked, empty where somebody did and saw nothing.</summary>
    public IReadOnlySet<Seen>? Seen { get; init; }

    /// <summary>Strength of the cup by refractometer, 0 to 1.</summary>
    public double? Strength { get; init; }

    /// <summary>Machine and plan as the earlier shots had them, newest first: what is usual here. At most some ten are looked
    /// at.</summary>
    public IReadOnlyList<ShotFacts> Earlier { get; init; } = [];

    /// <summary>What is known of the machine's care.</summary>
    public CareFacts Care { get; init; } = CareFacts.None;

    /// <summary>By which school it is judged.</summary>
    public School School { get; init; } = SchoolList.Usual;

    /// <summary>How advice has fared in this household; empty in the beginning.</summary>
    public IReadOnlyList<AdviceOutcome> Record { get; init; } = [];

    /// <summary>Whether a small hole gives the back-pressure.</summary>
    public bool Restricted => Sheet.Bed.Basket.RestrictorBarS2PerMl2 > 0;
}

/// <summary>A grinder's setting.</summary>
/// <param name="Setting">On its own scale.</param>
/// <param name="Unit">What a step is called.</param>
/// <param name="Steps">Its scale.</param>
/// <param name="LogPerUnit">What a unit of the scale does to the logarithm of the resistivity.</param>
public sealed record GrindNote(double Setting, string Unit, GrinderSteps Steps, double LogPerUnit);

/// <summary>How a piece of advice came out.</summary>
/// <param name="Cause">Key of the cause that it was given for.</param>
/// <param name="Worked">Whether the next shot showed what it should.</param>
public sealed record AdviceOutcome(string Cause, bool Worked);
