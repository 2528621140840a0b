using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Core.Json;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.Posting.Layouts;
using Daxlin.Service.Posting.Lists;
using Daxlin.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Coding;

/// <summary>What invoices are coded by: the rules, the lists that they look words up in, and the layouts that may want a code.</summary>
/// <param name="Basis">Names all of it; empty where there are neither rules nor layouts. An invoice that was coded by another basis is coded anew.</param>
/// <param name="Version">Of the rules; 0 if there are none.</param>
/// <param name="Fault">Why the rules cannot be read; null if they can. What was in order when it was saved may have faults in a later release.</param>
internal sealed record CodingFacts(string Basis, int Version, CodingRules Rules, TranslationLists Lists, ImmutableArray<PostingLayout> Layouts, Finding? Fault)
{
    /// <summary>Says that invoices must be looked at: something may code them, or want a code.</summary>
    public bool IsAny => Basis.Length > 0;

    /// <summary>Those of the newest basis. Versions are only ever added, so what a basis names in a database never changes.</summary>
    private static volatile Kept? kept;

    public static async Task<CodingFacts> Load(DaxlinDb db, CancellationToken cancel)
    {
        var basis = await BasisOf(db, cancel);
        if (basis.Length == 0)
            return new CodingFacts("", 0, CodingRules.None, TranslationLists.None, [], null);
        // Each captured document asks; rules and lists may have megabytes.
        var database = db.Database.GetDbConnection().ConnectionString;
        if (kept is { } known && known.Database == database && known.Facts.Basis == basis)
            return known.Facts;
        var facts = await Load(db, basis, cancel);
        kept = new Kept(database, facts);
        return facts;
    }

    private sealed record Kept(string Database, CodingFacts Facts);

    private static async Task<CodingFacts> Load(DaxlinDb db, string basis, CancellationToken cancel)
    {
        var lists = ListShelf.Read(await ListShelf.Newest(db).ToListAsync(cancel)).Lists;
        var newest = await db.Codings.AsNoTracking().OrderByDescending(row => row.Version).FirstOrDefaultAsync(cancel);
        var (rules, fault) = Read(newest, lists);
        var layouts = ImmutableArray.CreateBuilder<PostingLayout>();
        foreach (var row in await LayoutShelf.Newest(db).AsNoTracking().Where(row => !row.IsRetired).OrderBy(row => row.Name).ToListAsync(cancel))
        {
            try
            {
                layouts.Add(LayoutReader.Read(row.Document, lists));
            }
            catch (JsonFaultException)
            {
                // A layout that cannot be read any more posts nothing, so it wants nothing.
            }
        }
        return new CodingFacts(basis, newest?.Version ?? 0, rules, lists, layouts.DrainToImmutable(), fault);
    }

    /// <summary>Cheap: three numbers that only ever grow.</summary>
    public static async Task<string> BasisOf(DaxlinDb db, CancellationToken cancel)
    {
        var rules = await db.Codings.MaxAsync(row => (int?)row.Version, cancel) ?? 0;
        var layouts = await db.Layouts.MaxAsync(row => (int?)row.Id, cancel) ?? 0;
        var lists = await db.Lists.MaxAsync(row => (int?)row.Id, cancel) ?? 0;
        return rules == 0 && layouts == 0 ? "" : string.Create(CultureInfo.InvariantCulture, $"{rules}/{lists}/{layouts}");
    }

    private static (CodingRules Rules, Finding? Fault) Read(CodingVersion? row, TranslationLists lists)
    {
        if (row is null)
            return (CodingRules.None, null);
        try
        {
            return (CodingReader.Read(row.Document, lists), null);
        }
        catch (JsonFaultException error)
        {
            return (CodingRules.None, Finding.Hold(Faulty, $"The coding rules, version {row.Version}, have a fault, so that nothing is coded by them: {error.Faults[0]}"));
        }
    }

    public const string Faulty = "coding-faulty";
}
