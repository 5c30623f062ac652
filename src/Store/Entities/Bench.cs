using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;

namespace RuddySpring.Store.Entities;

/// <summary>A person who brews.</summary>
public sealed class Brewer : IVersioned
{
    public int Id { get; set; }
    public int Version { get; set; }
    public string Name { get; set; } = "";

    /// <summary>Key of the school that this person judges shots by; null for the household's.</summary>
    public string? School { get; set; }

    /// <summary>Unit that this person reads pressure in; null for the household's.</summary>
    public string? PressureUnit { get; set; }

    /// <summary>Unit that this person reads temperature in; null for the household's.</summary>
    public string? TemperatureUnit { get; set; }

    /// <summary>Unit that this person reads force in; null for the household's.</summary>
    public string? ForceUnit { get; set; }
}

/// <summary>What stands on the bench until it is put away, and can be taken back; its shots keep it by name.</summary>
public interface IOnTheBench : IVersioned
{
    public int Id { get; }
    public string Name { get; }

    /// <summary>When it was put away, UTC; null while it stands there.</summary>
    public DateTime? DeletedAt { get; set; }
}

/// <summary>A machine on the bench: its name and its numbers.</summary>
public sealed class BenchMachine : IOnTheBench
{
    public int Id { get; set; }
    public int Version { get; set; }
    public string Name { get; set; } = "";
    public DateTime? DeletedAt { get; set; }

    /// <summary>The machine as the core knows it; stored as JSON.</summary>
    public Machine Spec { get; set; } = FamilyDefaults.Of(MachineFamily.PortableLever).Machine;
}

/// <summary>A grinder and the words of its scale.</summary>
public sealed class Grinder : IOnTheBench
{
    public int Id { get; set; }
    public int Version { get; set; }
    public string Name { get; set; } = "";
    public DateTime? DeletedAt { get; set; }

    /// <summary>What one step is called: clicks, numbers, turns.</summary>
    public string ScaleUnit { get; set; } = "clicks";

    /// <summary>Smallest step of the scale.</summary>
    public double Step { get; set; } = 1;

    /// <summary>Whether a smaller number grinds finer.</summary>
    public bool FinerIsLower { get; set; } = true;

    /// <summary>Setting at which the burrs touch; null where nobody looked.</summary>
    public double? ZeroPoint { get; set; }

    /// <summary>Grounds it holds back, g.</summary>
    public double RetentionGrams { get; set; }

    /// <summary>What is ground away after another coffee, g.</summary>
    public double PurgeGrams { get; set; }
}

/// <summary>A bag of beans.</summary>
public sealed class Bag : IOnTheBench
{
    public int Id { get; set; }
    public int Version { get; set; }
    public string Name { get; set; } = "";
    public DateTime? DeletedAt { get; set; }
    public string Roaster { get; set; } = "";
    public DateOnly RoastedOn { get; set; }

    /// <summary>Light, medium or dark, in the owner's words.</summary>
    public string RoastLevel { get; set; } = "medium";

    /// <summary>Whether it is used up.</summary>
    public bool Finished { get; set; }

    /// <summary>Washed, natural and so on, in the owner's words.</summary>
    public string Process { get; set; } = "";

    /// <summary>When it was opened.</summary>
    public DateOnly? OpenedOn { get; set; }

    /// <summary>When it went into the freezer, which stops its clock.</summary>
    public DateOnly? FrozenOn { get; set; }

    /// <summary>When it came out.</summary>
    public DateOnly? ThawedOn { get; set; }

    /// <summary>Whose it is; null for everybody's.</summary>
    public int? BrewerId { get; set; }

    /// <summary>Coffee left in it, g; each shot takes its dose off. Null where nobody weighed.</summary>
    public double? GramsLeft { get; set; }

    /// <summary>The dates its age goes by.</summary>
    public BagDates Dates => new(RoastedOn, FrozenOn, ThawedOn);
}

/// <summary>A basket in the drawer.</summary>
public sealed class BenchBasket : IOnTheBench
{
    public int Id { get; set; }
    public int Version { get; set; }
    public string Name { get; set; } = "";
    public DateTime? DeletedAt { get; set; }

    /// <summary>The basket as the core knows it; stored as JSON.</summary>
    public Basket Spec { get; set; } = Basket.Of(FamilyDefaults.Of(MachineFamily.PortableLever).Machine);
}

/// <summary>A pull plan of the household's own.</summary>
public sealed class OwnPlan : IVersioned
{
    public int Id { get; set; }
    public int Version { get; set; }

    /// <summary>The plan; stored as JSON. Its key is <c>own-</c> and the number.</summary>
    public PullPlan Plan { get; set; } = ShippedPlans.EarlyPeak;

    /// <summary>When it was thrown into the bin, UTC; null while it is in use.</summary>
    public DateTime? DeletedAt { get; set; }

    /// <summary>The plan under its own key.</summary>
    public PullPlan Keyed => Plan with { Key = $"own-{Id}" };
}
