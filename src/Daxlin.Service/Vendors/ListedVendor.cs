using Daxlin.Service.Storage;

namespace Daxlin.Service.Vendors;

/// <summary>A vendor with what is counted of it.</summary>
internal sealed class ListedVendor
{
    public required Vendor Row { get; init; }

    public required int Confirmed { get; init; }

    public required int Waiting { get; init; }

    public required int Invoices { get; init; }

    public required int Held { get; init; }
}
