using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Says that a captured figure is the one that the electronic invoice in the same document states.</summary>
/// <remarks>
/// To the last digit: both come out of one vendor's books, and a cent between them is one figure posted and another owed. A figure
/// that no sum contains, such as a quantity without a price, is proved by it as well.
/// </remarks>
/// <param name="Spoken">What it is, as it is read aloud: "total", "row 3, amount".</param>
/// <param name="File">The electronic invoice's file.</param>
/// <param name="Stated">What it states, with the page's sign.</param>
/// <param name="IsMoney">Says that it is an amount in the invoice's currency, and no quantity or rate.</param>
public sealed record AgreesWithElectronic(string Spoken, string File, decimal Stated, decimal Captured, bool IsMoney, Currency Currency, ImmutableArray<string> Members)
    : Tie(Currency, Members)
{
    public override string Code => ElectronicWitness.Differs;
    public override string Equation => $"{Spoken} of {File} = {Spoken}";
    public override decimal Left => Stated;
    public override decimal Right => Captured;
    public override decimal Tolerance => 0;
    protected override string Says => $"{ElectronicWitness.Capital(Spoken)}: the electronic invoice {File} states";
    protected override string WhoStates => "the page states";
    protected override string Show(decimal number) => IsMoney ? base.Show(number) : number.ToString(CultureInfo.InvariantCulture);
}
