using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Photos;

/// <summary>A photo of a shot; its pictures are at <c>/api/photos/{id}.jpg</c> and <c>/api/photos/{id}/small.jpg</c>.</summary>
public sealed record PhotoView(int Id, DateTime AddedAt, int Width, int Height);

/// <summary>Photos of cup and puck.</summary>
public static class PhotoEndpoints
{
    private const int MostOfAShot = 4;
    private const string Forever = "private, max-age=31536000, immutable";

    public static void MapPhotos(this IEndpointRouteBuilder api)
    {
        api.MapGet("/shots/{id:int}/photos", (int id, RuddyContext db, CancellationToken cancel) => OfShotAsync(id, db, cancel));
        api.MapPost("/shots/{id:int}/photos", AddAsync).Accepts<byte[]>("image/jpeg", "image/png", "image/webp");
        api.MapGet("/photos/{id:int}.jpg", async (int id, HttpResponse response, RuddyContext db, CancellationToken cancel) =>
            Picture(response, await db.Photos.Where(p => p.Id == id).Select(p => p.Jpeg).SingleOrDefaultAsync(cancel))
        );
        api.MapGet(
            "/photos/{id:int}/small.jpg",
            async (int id, HttpResponse response, RuddyContext db, CancellationToken cancel) =>
                Picture(response, await db.Photos.Where(p => p.Id == id).Select(p => p.Small).SingleOrDefaultAsync(cancel))
        );
        api.MapDelete("/photos/{id:int}", async (int id, RuddyContext db, CancellationToken cancel) =>
        {
            var photo = await db.Photos.SingleOrDefaultAsync(p => p.Id == id, cancel)
                ?? throw new NotThereException($"There is no photo {id}.");
            db.Photos.Remove(photo);
            await db.SaveChangesAsync(cancel);
            return await OfShotAsync(photo.ShotId, db, cancel);
        });
    }

    private static FileContentHttpResult Picture(HttpResponse response, byte[]? jpeg)
    {
        response.Headers.CacheControl = Forever;
        return TypedResults.File(jpeg ?? throw new NotThereException("There is no such photo."), "image/jpeg");
    }

    private static Task<List<PhotoView>> OfShotAsync(int shotId, RuddyContext db, CancellationToken cancel) =>
        db
            .Photos.Where(p => p.ShotId == shotId)
            .OrderBy(p => p.Id)
            .Select(p => new PhotoView(p.Id, p.AddedAt, p.Width, p.Height))
            .ToListAsync(cancel);

    private static async Task<List<PhotoView>> AddAsync(
        int id,
        HttpRequest request,
        RuddyContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (!await db.Shots.AnyAsync(s => s.Id == id && s.DeletedAt == null, cancel))
            throw new NotThereException($"There is no shot {id}.");
        if (await db.Photos.CountAsync(p => p.ShotId == id, cancel) >= MostOfAShot)
            throw new Core.DoesNotFitException("photo", $"A shot has at most {MostOfAShot} photos; delete one first.");
        using var file = new MemoryStream();
        await request.Body.CopyToAsync(file, cancel);
        db.Photos.Add(Photo.Drawn(file.ToArray()).For(id, time.GetUtcNow().UtcDateTime));
        await db.SaveChangesAsync(cancel);
        return await OfShotAsync(id, db, cancel);
    }
}
