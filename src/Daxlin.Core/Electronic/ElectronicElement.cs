namespace Daxlin.Core.Electronic;

/// <summary>One element of an electronic invoice, in the order of the file.</summary>
/// <param name="Depth">How many elements it stands in; 0 is the root.</param>
/// <param name="Name">Without its prefix, its attributes behind it: PayableAmount (currencyID EUR).</param>
/// <param name="Text">What it says; empty for one that holds others.</param>
public sealed record ElectronicElement(int Depth, string Name, string Text);
