using Microsoft.Extensions.FileProviders;

namespace RuddySpring.Server.Hosting;

/// <summary>Serves the built front end and answers every page address with the page.</summary>
public static class FrontEnd
{
    /// <summary>
    /// The folder of the built front end: beside the program where it was published, else in the project's own tree above it.
    /// </summary>
    public static string DefaultRoot(string programFolder)
    {
        for (var folder = new DirectoryInfo(programFolder); folder is not null; folder = folder.Parent)
        {
            var root = Path.Combine(folder.FullName, "wwwroot");
            if (File.Exists(Path.Combine(root, "index.html")))
                return root;
        }

        return Path.Combine(programFolder, "wwwroot");
    }

    /// <summary>Static files; those with a hash in their name are kept by the browser for good.</summary>
    public static void Use(WebApplication app, string webRoot)
    {
        if (!Directory.Exists(webRoot))
            return;
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = new PhysicalFileProvider(webRoot),
                OnPrepareResponse = context =>
                    context.Context.Response.Headers.CacheControl = context.Context.Request.Path.StartsWithSegments("/assets")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache",
            }
        );
    }

    /// <summary>The page for addresses that no file and no endpoint answers.</summary>
    public static void MapFallback(WebApplication app, string webRoot)
    {
        var page = Path.Combine(webRoot, "index.html");
        app.MapFallback(async context =>
        {
            if (!HttpMethods.IsGet(context.Request.Method) || !File.Exists(page))
            {
                context.Response.StatusCode = 404;
                await context.Response.WriteAsync("The front end has not been built. Run ./run from the project folder.");
                return;
            }

            context.Response.ContentType = "text/html; charset=utf-8";
            context.Response.Headers.CacheControl = "no-cache";
            await context.Response.SendFileAsync(page);
        });
    }
}
