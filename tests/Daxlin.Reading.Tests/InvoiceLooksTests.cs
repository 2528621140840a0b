using System.Collections.Immutable;
using Daxlin.Core.Drafting;
using Daxlin.Core.Recognition;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Invoices that no template recognises are sorted by what they look like.</summary>
public sealed class InvoiceLooksTests
{
    /// <summary>The invoices of all families in one heap.</summary>
    private static readonly Lazy<ImmutableArray<Unplaced>> heap = new(() =>
        [.. from folder in FamilyInvoices.Folders from file in Directory.GetFiles(folder, "*.pdf").Order(StringComparer.Ordinal) select Read(Path.GetFileName(folder), file)]);

    /// <summary>They come apart into their families by their looks alone, in whatever order they come in.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void InvoicesOfAllFamiliesComeApartByLooks(int seed)
    {
        var groups = new List<List<Unplaced>>();
        var known = new List<Unplaced>();
        foreach (var one in Shuffled(seed))
        {
            if (known.Where(other => one.Looks.LikenessTo(other.Looks) >= InvoiceLooks.OneVendors).MaxBy(other => one.Looks.LikenessTo(other.Looks)) is { } alike)
                groups.Single(group => group.Contains(alike)).Add(one);
            else
                groups.Add([one]);
            known.Add(one);
        }

        // None is laid to another vendor's, and few begin a heap of their own: a page without a word, or one that came before all that it is like.
        Assert.DoesNotContain(groups, group => group.Select(one => one.Family).Distinct().Count() > 1);
        var families = FamilyInvoices.Folders.Length;
        Assert.InRange(groups.Count, families, families + (heap.Value.Length / 20));
    }

    /// <summary>With the names that stand on them, each family has one vendor, and no two families the same.</summary>
    [Theory]
    [InlineData(4)]
    [InlineData(5)]
    public void EachFamilyLooksLikeOneVendors(int seed)
    {
        var known = new List<(string Family, KnownLooks Looks)>();
        foreach (var one in Shuffled(seed))
            known.Add((one.Family, new KnownLooks(KnownLooks.VendorOf(one.Names, one.Looks, known.Select(other => other.Looks)), one.Looks)));

        var named = known.Where(one => one.Looks.Vendor.Length > 0).ToList();
        Assert.All(named.GroupBy(one => one.Looks.Vendor), vendor => Assert.Single(vendor.Select(one => one.Family).Distinct()));
        // What came before all that it is like can have its name misread.
        var apart = named.GroupBy(one => one.Family).Sum(family => family.Count() - family.GroupBy(one => one.Looks.Vendor).Max(vendor => vendor.Count()));
        Assert.InRange(apart, 0, named.Count / 50);
    }

    /// <summary>Vendors who write with one program are told apart by the names on their invoices.</summary>
    [Fact]
    public void OneLayoutOfTwoVendorsIsNotOneVendors()
    {
        var looks = heap.Value[0].Looks;
        KnownLooks[] known = [new("Osier Rope Works", looks), new("Tamarack Ice", looks)];

        Assert.Equal("Tamarack Ice", KnownLooks.VendorOf(["Kestrel Sound Ferries", "TAMARACK ICE"], looks, known));
        Assert.Equal("Dunlin Paint", KnownLooks.VendorOf(["Dunlin Paint", "Kestrel Sound Ferries"], looks, known));
        Assert.Contains(KnownLooks.VendorOf([], looks, known), known.Select(one => one.Vendor));
        Assert.Equal("", KnownLooks.VendorOf([], InvoiceLooks.None, known));
    }

    [Fact]
    public void WhatIsKeptIsAsLikeAsItWas()
    {
        var some = heap.Value.GroupBy(one => one.Family).Select(family => family.First().Looks).ToList();

        Assert.All(some, one =>
        {
            var kept = InvoiceLooks.Of(one.ToBytes());
            Assert.Equal(1, kept.LikenessTo(one));
            Assert.All(some, other => Assert.Equal(one.LikenessTo(other), kept.LikenessTo(other)));
        });
        Assert.Equal(0, InvoiceLooks.None.LikenessTo(InvoiceLooks.None));
    }

    private static Unplaced[] Shuffled(int seed)
    {
        var all = heap.Value.ToArray();
        new Random(seed).Shuffle(all);
        return all;
    }

    private static Unplaced Read(string family, string file)
    {
        try
        {
            var pages = PdfReader.Read(File.ReadAllBytes(file));
            return new(family, InvoiceLooks.Of(pages), Drafter.VendorsOf(pages));
        }
        catch (UnreadableException)
        {
            return new(family, InvoiceLooks.None, []);
        }
    }

    private sealed record Unplaced(string Family, InvoiceLooks Looks, ImmutableArray<string> Names);
}
