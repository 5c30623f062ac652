using Microsoft.EntityFrameworkCore;
using RuddySpring.EmptyServer;

// an empty application over one migrated table, on any free port: the database's file is the only argument
var builder = WebApplication.CreateBuilder();
builder.WebHost.UseUrls("http://127.0.0.1:0");
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.Services.AddDbContextPool<EmptyContext>(o => o.UseSqlite($"Data Source={args[0]}"));
var app = builder.Build();
using (var scope = app.Services.CreateScope())
    scope.ServiceProvider.GetRequiredService<EmptyContext>().Database.Migrate();
app.MapGet("/", async (EmptyContext db) => await db.Things.CountAsync());
await app.StartAsync();
Console.WriteLine($"Listening on {app.Urls.First()}");
await app.WaitForShutdownAsync();
