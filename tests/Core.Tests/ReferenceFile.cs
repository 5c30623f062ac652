using System.Globalization;

namespace RuddySpring.Core.Tests;

/// <summary>Reads the outside values in tests/reference; lines with # say where they come from.</summary>
internal static class ReferenceFile
{
    public static IEnumerable<double[]> Rows(string name) =>
        File.ReadLines(Path.Combine(AppContext.BaseDirectory, "reference", name))
            .Where(l => l.Length > 0 && !l.StartsWith('#'))
            .Select(l => l.Split(',').Select(c => double.Parse(c, CultureInfo.InvariantCulture)).ToArray());
}
