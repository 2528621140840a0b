using Microsoft.AspNetCore.Http.Extensions;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Web;

/// <summary>Which part of a list is asked for. The part after it stands in the header Link (RFC 8288), as long as there is one.</summary>
/// <param name="After">Where the part before ended, as its Link says; left out for the first part.</param>
/// <param name="Limit">How many entries at most: 200 if left out, 1000 at most.</param>
internal readonly record struct ListPage([FromQuery(Name = "after")] string? After, [FromQuery(Name = "limit")] int? Limit)
{
    private const int Usual = 200;
    private const int Most = 1000;

    private int Size => Math.Clamp(Limit ?? Usual, 1, Most);

    /// <summary>The number that the part before ended with; null for the first part, and for what is no number.</summary>
    public int? AfterNumber => int.TryParse(After, out var number) ? number : null;

    /// <summary>The entries of this part, and a Link to the next in the answer.</summary>
    /// <param name="rows">In a stable order, from this part's first entry on.</param>
    /// <param name="place">By what the part after an entry is asked for.</param>
    public async Task<List<T>> Of<T>(IQueryable<T> rows, Func<T, string> place, HttpContext context, CancellationToken cancel)
    {
        var part = await rows.Take(Size + 1).ToListAsync(cancel);
        if (part.Count <= Size)
            return part;
        part.RemoveAt(Size);
        var next = new QueryBuilder { { "after", place(part[^1]) }, { "limit", Size.ToString(System.Globalization.CultureInfo.InvariantCulture) } };
        // The next part is one of the same list: its order and its filters go with it.
        foreach (var (key, values) in context.Request.Query.Where(one => one.Key is not ("after" or "limit")))
            next.Add(key, values.OfType<string>());
        context.Response.Headers.Link = $"<{context.Request.Path}{next}>; rel=\"next\"";
        return part;
    }
}
