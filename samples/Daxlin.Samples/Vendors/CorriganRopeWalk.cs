namespace Daxlin.Samples.Vendors;

/// <summary>Ropes and hawsers: sends electronic invoices and prints none.</summary>
public sealed class CorriganRopeWalk : Vendor
{
    public override string Folder => "electronic";
    public override string Name => "Corrigan Rope Walk";
    public override string TaxId => "IE 0007714 C";
    public override string Iban => "IE69 CORW 0000 0077 1400 00";
    public override string Currency => "EUR";
    public override Fault UsualFault => Fault.None;

    public override Assortment Sells { get; } = new(
        [
            new("R-12", "Hawser, polyester, 12 strand, 48 mm", "m", 31.40m, 23),
            new("R-20", "Mooring line with spliced eye, 40 mm", "pc", 412.00m, 23),
            new("R-31", "Heaving line with monkey's fist", "pc", 38.50m, 23),
            new("R-44", "Splicing on the quay", "h", 54.00m, 13.5m, InFractions: true),
            new("R-45", "Inspection of lines, with report", "h", 62.00m, 13.5m, InFractions: true),
        ],
        ["Razorbill"], [], [], HasFreight: true, HasOrderDiscount: true);

    public override string NumberOf(int sequence) => $"CRW-{4400 + sequence}";

    public override int Draw(MadeInvoice invoice, string path) => throw new NotSupportedException("This vendor prints nothing.");
}
