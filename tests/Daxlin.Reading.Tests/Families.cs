using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>All families at hand, for tests that hold for each.</summary>
public static class Families
{
    public static TheoryData<string> Folders => [.. FamilyInvoices.Folders];
}
