/** Where things stand on the stage: the same camera as the stage's, looked through beside the browser. */
import type { Page } from "@playwright/test";
import * as THREE from "three";
import { meshBox, type TriangleMesh } from "../../core/mesh/mesh.ts";
import type { Direction } from "../../core/space/directions.ts";
import { KNOB_REACH } from "../../web/scene/handle.ts";
import { InputElement } from "../../web/scene/input.ts";
import { type NamedView, View } from "../../web/scene/view.ts";

export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** A piece on the stage, looked at from a named side. */
export class StagePage {
  private constructor(
    private readonly page: Page,
    private readonly piece: TriangleMesh,
    private readonly view: View,
    private readonly place: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
  ) {}

  /** Presses the button of the view, and waits until the stage shows it. */
  static async lookedAtFrom(page: Page, piece: TriangleMesh, name: "front" | "left" | "right"): Promise<StagePage> {
    await page
      .getByRole("button", { name: `${name[0].toUpperCase()}${name.slice(1)}`, exact: true })
      .first()
      .click();
    const place = await page.getByTestId("stage").boundingBox();
    if (!place) throw new Error("The stage has no place on the page.");
    THREE.Object3D.DEFAULT_UP.set(0, 0, 1);
    const view = new View(new InputElement() as unknown as HTMLElement, () => {});
    view.resize(place.width, place.height);
    const stage = new StagePage(page, piece, view, place);
    view.look(name satisfies NamedView, stage.box);
    view.camera.updateMatrixWorld();
    await stage.drawn();
    return stage;
  }

  private get box(): THREE.Box3 {
    const { min, max } = meshBox(this.piece);
    return new THREE.Box3(new THREE.Vector3(...min), new THREE.Vector3(...max));
  }

  /** The spot on the page where a place of the piece is seen, mm in the seated piece's space. */
  spot(at: readonly [number, number, number]): Spot {
    const seen = new THREE.Vector3(...at).project(this.view.camera);
    const { x, y, width, height } = this.place;
    return { x: x + ((seen.x + 1) / 2) * width, y: y + ((1 - seen.y) / 2) * height };
  }

  /** The spot of the knob of an arrow that points along a direction. */
  knob(direction: Direction): Spot {
    const positions = new THREE.BufferAttribute(this.piece.positions, 3);
    const reach = new THREE.BufferGeometry().setAttribute("position", positions);
    reach.computeBoundingSphere();
    const radius = reach.boundingSphere?.radius ?? 0;
    const middle = this.box.getCenter(new THREE.Vector3());
    return this.spot(middle.addScaledVector(new THREE.Vector3(...direction), KNOB_REACH * radius).toArray());
  }

  async drag(from: Spot, to: Spot): Promise<void> {
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    await this.page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
    await this.page.mouse.move(to.x, to.y);
    await this.page.mouse.up();
    await this.drawn();
  }

  /** The stage has answered what was done on it, and shows it. */
  private async drawn(): Promise<void> {
    await this.page.locator("[data-testid=stage][data-drawing]").waitFor({ state: "detached" });
  }
}
