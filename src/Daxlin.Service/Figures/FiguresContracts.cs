using System.Collections.Immutable;

namespace Daxlin.Service.Figures;

/// <summary>How the work went over a time.</summary>
/// <param name="Weeks">By the week in which invoices were received: how many went through untouched.</param>
/// <param name="Vendors">The same by vendor, those with the most invoices first.</param>
/// <param name="Reasons">What holds what is open now, the most frequent first.</param>
/// <param name="Months">Sums by vendor and by the month that invoices are dated in.</param>
public sealed record WorkFigures(ImmutableArray<WeekFigure> Weeks, ImmutableArray<VendorFigure> Vendors, ImmutableArray<ReasonCount> Reasons, ImmutableArray<MonthSum> Months);

/// <param name="Monday">The first day of the week.</param>
/// <param name="Untouched">How many are clear, approved or posted, and no person has changed anything of them.</param>
public sealed record WeekFigure(DateOnly Monday, int Invoices, int Untouched);

public sealed record VendorFigure(string Vendor, int Invoices, int Untouched);

/// <param name="Month">As 2026-03.</param>
/// <param name="Sum">Credit notes taken off.</param>
public sealed record MonthSum(string Month, string Vendor, string Currency, int Invoices, string Sum);
