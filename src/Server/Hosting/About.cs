using System.Reflection;

namespace RuddySpring.Server.Hosting;

/// <summary>What runs here.</summary>
/// <param name="Version">By semantic versioning, as in the changelog.</param>
public sealed record AboutView(string Version);

/// <summary>Tells which version runs.</summary>
public static class About
{
    // what a build adds after a plus sign is of no use to a reader
    private static readonly AboutView View = new(
        typeof(About).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()!.InformationalVersion.Split('+')[0]
    );

    public static void MapAbout(this IEndpointRouteBuilder api) => api.MapGet("/about", () => View);
}
