import { useEffect, useState } from "react";
import type { ShownOffer } from "../../../workers/geometry.ts";
import { messages } from "../messages.ts";

/** A plan's small picture; its address is given back when it goes. */
export function Picture({ plan, className }: { plan: ShownOffer; className: string }) {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    const url = URL.createObjectURL(plan.picture);
    setAddress(url);
    return () => URL.revokeObjectURL(url);
  }, [plan.picture]);
  return address ? (
    <img src={address} alt={messages.picture.ofPlan(plan.sections.length)} className={`bg-base-200 ${className}`} />
  ) : (
    <span className={className} />
  );
}
