using RuddySpring.Core.Beans;

namespace RuddySpring.Store.Entities;

/// <summary>The one household or cart that this database belongs to: a single row.</summary>
public sealed class Household : IVersioned
{
    public const int OnlyId = 1;

    public int Id { get; set; } = OnlyId;
    public int Version { get; set; }

    /// <summary>What it is called on screen.</summary>
    public string Name { get; set; } = "";

    /// <summary>Height above sea level, m.</summary>
    public double AltitudeMetres { get; set; }

    /// <summary>Usual room temperature, degC.</summary>
    public double AmbientC { get; set; } = 20;

    /// <summary>Whether its data were made up for showing the application.</summary>
    public bool MadeUp { get; set; }

    /// <summary>Unit to show pressure in: bar, psi or kPa.</summary>
    public string PressureUnit { get; set; } = "bar";

    /// <summary>Unit to show temperature in: degC or degF.</summary>
    public string TemperatureUnit { get; set; } = "degC";

    /// <summary>Unit to show force in: kgf or N.</summary>
    public string ForceUnit { get; set; } = "kgf";

    /// <summary>Key of the school that it judges its shots by.</summary>
    public string School { get; set; } = Core.Reasoning.SchoolList.Usual.Key;

    /// <summary>The words that it tastes with; stored as JSON.</summary>
    public IReadOnlyList<string> TasteWords { get; set; } = Core.Reasoning.TasteWords.Usual;

    /// <summary>Hardness of the water, mg/l of CaCO3.</summary>
    public double WaterHardness { get; set; } = Core.Care.Descaling.UsualHardness;

    /// <summary>Days after which shots in the bin are deleted for good; null keeps them until the bin is emptied.</summary>
    public int? BinDays { get; set; }

    /// <summary>Rest window of its beans, days from roast; stored as JSON.</summary>
    public RestWindow Rest { get; set; } = RestWindow.Of(RestSchool.SevenToTen);
}

/// <summary>The sheet being prepared: a single row, apart from the household's so that typing on it changes no
/// settings.</summary>
public sealed class KeptSheet : IVersioned
{
    public int Id { get; set; } = Household.OnlyId;
    public int Version { get; set; }

    /// <summary>The sheet as typed, as JSON.</summary>
    public required string Json { get; set; }
}
